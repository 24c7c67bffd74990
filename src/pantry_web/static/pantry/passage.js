// Works in the picture: a ribbon is pressed, carried to another hour, or moved by keys.
(() => {
  "use strict";
  const QUARTER_S = 900;
  const RESTS_MS = 300;
  const CARRIED_FROM_PX = 5;
  const SVG = "http://www.w3.org/2000/svg";
  const page = () => document.getElementById("passage");
  const wide = () => document.querySelector("svg.passage.wide");
  const ribbons = () => [...document.querySelectorAll("a.ribbon")];
  const named = (step) => ribbons().find((each) => each.dataset.step === step);
  const say = (words) => { document.getElementById("passage-live").textContent = words; };

  // Between instants [s] and heights: straight lines, as the picture was drawn.
  const along = (value, from, to) => {
    const pairs = JSON.parse(wide().dataset.scale);
    let i = pairs.findIndex((pair) => pair[from] > value);
    if (i < 0) i = pairs.length - 1;
    if (i === 0) i = 1;
    const [a, b] = [pairs[i - 1], pairs[i]];
    const share = b[from] === a[from] ? 0 : (value - a[from]) / (b[from] - a[from]);
    return a[to] + Math.min(Math.max(share, 0), 1) * (b[to] - a[to]);
  };
  const height = (at) => along(at, 0, 1);
  const moment = (y) => along(y, 1, 0);
  const quarter = (at) => {
    const anchor = Number(wide().dataset.anchor);
    return anchor + Math.round((at - anchor) / QUARTER_S) * QUARTER_S;
  };
  const local = (at, options) => new Intl.DateTimeFormat(document.documentElement.lang, { timeZone: wide().dataset.zone, ...options }).format(new Date(1000 * at));
  const twelve = document.documentElement.dataset.clock === "12";
  const hour = (at) => local(at, { weekday: "short", hour: twelve ? "numeric" : "2-digit", minute: "2-digit", hourCycle: twelve ? "h12" : "h23" });
  const written = (at) => {
    const part = Object.fromEntries(new Intl.DateTimeFormat("en", { timeZone: wide().dataset.zone, year: "numeric", month: "2-digit", day: "2-digit", hour: "2-digit", minute: "2-digit", hourCycle: "h23" }).formatToParts(new Date(1000 * at)).map((each) => [each.type, each.value]));
    return `${part.year}-${part.month}-${part.day}T${part.hour}:${part.minute}`;
  };
  // An hour that exists twice, the night the clocks go back, is told by its instant.
  const typed = (at) => [at - 3600, at + 3600].some((each) => written(each) === written(at)) ? new Date(1000 * at).toISOString() : written(at);

  // What is carried: a ribbon, its head's instant, and how it is told.
  let carried = null;
  let resting = 0;

  const judged = (ribbon, at) => {
    const { from, latest } = ribbon.dataset;
    if (at < Number(wide().dataset.now)) return "past";
    if (at > Number(latest)) return "beyond";
    return at < Number(from) ? "earlier" : "slack";
  };
  const carry = (ribbon, at) => {
    const cover = ribbon.querySelector(".cover");
    if (!carried) {
      const group = document.createElementNS(SVG, "g");
      group.append(...["rect", "rect", "text"].map((name) => document.createElementNS(SVG, name)));
      group.children[1].setAttribute("class", "tag");
      wide().append(group);
      carried = { ribbon, group };
      ribbon.classList.add("moving");
    }
    carried.at = at;
    const how = judged(ribbon, at);
    const [rect, tag, words] = carried.group.children;
    carried.group.setAttribute("class", `carried ${how === "past" || how === "beyond" ? "beyond" : ""}`);
    for (const name of ["x", "width", "height", "rx"]) rect.setAttribute(name, cover.getAttribute(name));
    rect.setAttribute("y", height(at));
    const x = Number(cover.getAttribute("x")) + Number(cover.getAttribute("width")) + 8;
    const isRight = x > wide().viewBox.baseVal.width - 260;
    words.setAttribute("x", isRight ? cover.getAttribute("x") - 8 : x);
    words.setAttribute("text-anchor", isRight ? "end" : "start");
    words.setAttribute("y", height(at) + 14);
    words.textContent = `${hour(at)}: ${page().dataset[how]}`;
    const told = words.getBBox();
    for (const [name, value] of [["x", told.x - 4], ["y", told.y - 2], ["width", told.width + 8], ["height", told.height + 4]]) tag.setAttribute(name, value);
    clearTimeout(resting);
    if (at !== Number(ribbon.dataset.from)) resting = setTimeout(() => show(address(ribbon, { begin: typed(at) })), RESTS_MS);
  };
  const leave = () => {
    clearTimeout(resting);
    carried?.group.remove();
    carried?.ribbon.classList.remove("moving");
    carried = null;
  };

  const place = () => {
    const { of, day } = page().dataset;
    return of === "dish" ? { of } : day ? { day } : {};
  };
  const address = (ribbon, more) => `${ribbon.getAttribute("href").split("?")[0]}?${new URLSearchParams({ ...place(), ...more })}`;

  // What is told of a step beside the picture.
  const show = async (from, takesFocus = false) => {
    try {
      const answer = await fetch(from, { headers: { "X-Part": "step" } });
      if (!answer.ok && answer.status !== 422) return;
      const part = document.getElementById("passage-step");
      part.innerHTML = await answer.text();
      window.htmx.process(part);
      const step = new URL(from, location.href).pathname;
      ribbons().forEach((each) => each.toggleAttribute("aria-current", new URL(each.href.baseVal, location.href).pathname === step));
      if (takesFocus) { part.querySelector("h2")?.focus(); part.scrollIntoView({ block: "nearest" }); }
    } catch { say(page().dataset.away); }
  };

  // The page anew, after a move or an undo; what was refused is told in it.
  const anew = async (answer, step) => {
    const read = new DOMParser().parseFromString(await answer.text(), "text/html");
    const fresh = read.getElementById("passage");
    if (!fresh) { location.reload(); return; }
    page().replaceWith(fresh);
    window.htmx.process(fresh);
    stopAtNext();
    history.replaceState(null, "", answer.redirected ? answer.url : location.href);
    const told = fresh.querySelector(".moved, [role=alert]");
    say(told?.textContent.replace(/\s+/g, " ").trim() ?? "");
    named(step)?.focus();
  };
  const send = async (to, fields, step) => {
    const busy = setTimeout(() => page().classList.add("is-waiting"), RESTS_MS);
    try {
      await anew(await fetch(to, { method: "POST", body: fields }), step);
    } catch { say(page().dataset.away); } finally { clearTimeout(busy); page().classList.remove("is-waiting"); }
  };
  const drop = async () => {
    const { ribbon, at } = carried;
    const before = Number(ribbon.dataset.from);
    leave();
    if (at === before) return;
    const fields = new FormData(document.getElementById("carried-there"));
    fields.set("begin", typed(at));
    await send(`${ribbon.getAttribute("href").split("?")[0]}move/`, fields, ribbon.dataset.step);
  };

  // The pointer.
  let pressed = null;
  const heightAt = (event) => {
    const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(wide().getScreenCTM().inverse());
    return point.y;
  };
  document.addEventListener("dragstart", (event) => { if (event.target.closest?.("a.ribbon")) event.preventDefault(); });
  document.addEventListener("pointerdown", (event) => {
    const ribbon = event.target.closest("a.ribbon[data-latest]");
    if (!ribbon || event.button) return;
    leave();
    pressed = { ribbon, y: event.clientY, off: heightAt(event) - height(Number(ribbon.dataset.from)), moved: false };
  });
  document.addEventListener("pointermove", (event) => {
    if (!pressed) return;
    if (!pressed.moved && Math.abs(event.clientY - pressed.y) < CARRIED_FROM_PX) return;
    pressed.moved = true;
    carry(pressed.ribbon, quarter(moment(heightAt(event) - pressed.off)));
  });
  document.addEventListener("pointerup", () => {
    if (pressed?.moved && carried) drop();
    const was = pressed;
    pressed = null;
    if (was?.moved) setTimeout(() => { was.moved = false; });
    lastMoved = Boolean(was?.moved);
  });
  document.addEventListener("pointercancel", () => { pressed = null; leave(); });
  let lastMoved = false;

  document.addEventListener("click", (event) => {
    const close = event.target.closest("[data-close]");
    if (close) {
      event.preventDefault();
      document.getElementById("passage-step").textContent = "";
      const open = document.querySelector("a.ribbon[aria-current]");
      open?.removeAttribute("aria-current");
      open?.focus();
      return;
    }
    const link = event.target.closest("a.ribbon, .by-day a[data-step]");
    if (!link || event.ctrlKey || event.metaKey || event.shiftKey || event.button) return;
    event.preventDefault();
    if (lastMoved) { lastMoved = false; return; }
    show(link.getAttribute("href"), true);
  });
  document.addEventListener("submit", (event) => {
    const form = event.target.closest(".move, .moved form, .step form[action$='/move/']");
    if (!form) return;
    event.preventDefault();
    const fields = new FormData(form);
    if (event.submitter?.matches("[data-try]")) {
      fields.delete("csrfmiddlewaretoken");
      show(`${event.submitter.getAttribute("formaction")}?${new URLSearchParams(fields)}`, true);
      return;
    }
    const [, dish, step] = form.getAttribute("action").match(/dishes\/(\d+)\/passage\/([^/]+)/);
    send(form.getAttribute("action"), fields, `${dish}.${step}`);
  });
  document.addEventListener("change", (event) => { if (event.target.id === "span") event.target.form.requestSubmit(); });

  // The picture is one stop of the Tab key: the ribbon that was pressed last, at first the next one.
  const stopAt = (ribbon) => {
    for (const each of ribbon.closest("svg").querySelectorAll("a.ribbon")) each.setAttribute("tabindex", each === ribbon ? "0" : "-1");
  };
  const stopAtNext = () => {
    for (const picture of document.querySelectorAll("svg.passage")) {
      const next = picture.querySelector("a.ribbon.running") ?? picture.querySelector("a.ribbon.ahead") ?? picture.querySelector("a.ribbon");
      if (next) stopAt(next);
    }
  };
  document.addEventListener("focusin", (event) => { if (event.target.matches?.("a.ribbon")) stopAt(event.target); });
  stopAtNext();

  // The keys: by time and by dish; with Shift a step is moved.
  const beside = (ribbon, key) => {
    const dish = (each) => each.dataset.step.split(".")[0];
    const at = (each) => Number(each.dataset.from);
    const all = ribbons().sort((a, b) => at(a) - at(b));
    if (key === "ArrowUp" || key === "ArrowDown") return all[all.indexOf(ribbon) + (key === "ArrowDown" ? 1 : -1)];
    const dishes = [...new Set(ribbons().map(dish))];
    const other = dishes[dishes.indexOf(dish(ribbon)) + (key === "ArrowRight" ? 1 : -1)];
    const theirs = all.filter((each) => dish(each) === other);
    return theirs.sort((a, b) => Math.abs(at(a) - at(ribbon)) - Math.abs(at(b) - at(ribbon)))[0];
  };
  document.addEventListener("keydown", (event) => {
    const ribbon = event.target.closest?.("a.ribbon");
    if (!ribbon || event.ctrlKey || event.metaKey || event.altKey) return;
    const { key } = event;
    const isUpDown = key === "ArrowUp" || key === "ArrowDown";
    if (isUpDown && event.shiftKey && ribbon.dataset.latest) {
      event.preventDefault();
      if (carried && carried.ribbon !== ribbon) leave();
      const at = quarter((carried?.at ?? Number(ribbon.dataset.from)) + (key === "ArrowDown" ? QUARTER_S : -QUARTER_S));
      carry(ribbon, at);
      say(page().dataset.moved.replace("%step%", ribbon.getAttribute("aria-label").split(",")[0]).replace("%hour%", carried.group.textContent));
    } else if (key.startsWith("Arrow")) {
      event.preventDefault();
      leave();
      const next = beside(ribbon, key);
      next?.focus();
      next?.scrollIntoView({ block: "nearest" });
    } else if (key === "Enter" || key === " ") {
      event.preventDefault();
      if (carried) drop(); else show(ribbon.getAttribute("href"), true);
    } else if (key === "Escape" && carried) {
      leave();
      say("");
    }
  });
})();
