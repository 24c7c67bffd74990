// Forms under a thumb: a unit by a press instead of by letters, and what was refused told in one place.
(() => {
  "use strict";
  const UNIT = /([a-zµ"″]+)\s*$/i;

  // The unit at the end gives way to the next; a bare number at the end gets one, the next smaller after a larger.
  const withNextUnit = (text, units) => {
    const tidy = text.trim();
    const last = UNIT.exec(tidy);
    if (last) {
      const at = units.indexOf(last[1].toLowerCase());
      return `${tidy.slice(0, last.index).trim()} ${units[(at + 1) % units.length]}`;
    }
    const before = /([a-z]+)\s*[\d.,/½¼¾⅓⅔⅛ ]+$/i.exec(tidy);
    const at = before ? units.indexOf(before[1].toLowerCase()) + 1 : 0;
    return tidy ? `${tidy} ${units[at % units.length]}` : tidy;
  };

  document.addEventListener("click", (event) => {
    const button = event.target.closest("[data-units]");
    if (!button) return;
    const field = document.getElementById(button.dataset.for);
    field.value = withNextUnit(field.value, button.dataset.units.split(" "));
    field.dispatchEvent(new Event("input", { bubbles: true }));
    field.focus();
  });

  // What is folded open stays open when a part of the page comes anew.
  let opened = [];
  document.addEventListener("htmx:beforeSwap", (event) => {
    opened = [...event.detail.target.querySelectorAll("details[id][open]")].map((each) => each.id);
  });
  document.addEventListener("htmx:afterSwap", () => {
    for (const id of opened) document.getElementById(id)?.setAttribute("open", "");
  });

  // A new plan is shown at once, unless somebody is filling in a form on the page: then by a press.
  const isChanged = (field) => {
    if (field.type === "hidden") return false;
    if (field.tagName === "SELECT") return [...field.options].some((each) => each.selected !== each.defaultSelected && each.index > 0);
    return ["checkbox", "radio"].includes(field.type) ? field.checked !== field.defaultChecked : field.value !== field.defaultValue;
  };
  const openedAtFirst = new Set(document.querySelectorAll("details[open]"));
  const isFillingIn = () => document.activeElement?.matches("main input, main select, main textarea")
    || [...document.querySelectorAll("main details[open]")].some((each) => !openedAtFirst.has(each) && each.querySelector("form"))
    || [...document.querySelectorAll("main input, main select, main textarea")].some(isChanged);
  // A page that knows what it has seen keeps itself up to date. What was just said is said again.
  const SAID = "said";
  const reload = () => {
    sessionStorage.setItem(SAID, [...document.querySelectorAll(".say")].map((each) => each.outerHTML).join(""));
    location.reload();
  };
  const said = new DOMParser().parseFromString(sessionStorage.getItem(SAID) || "", "text/html");
  sessionStorage.removeItem(SAID);
  document.querySelector("main .page")?.prepend(...said.querySelectorAll(".say"));
  document.addEventListener("plan-ready", () => { if (!document.querySelector("[data-seen]") && !isFillingIn()) reload(); });
  document.addEventListener("click", (event) => {
    if (!event.target.closest("[data-look-again]")) return;
    event.preventDefault();
    reload();
  });

  const wrong = [...document.querySelectorAll('[aria-invalid="true"]')].filter((field) => field.type !== "hidden");
  if (wrong.length > 1) {
    const told = document.createElement("div");
    const list = document.createElement("ul");
    told.className = "stop refused";
    told.setAttribute("role", "alert");
    told.append(document.body.dataset.refused.replace("0", wrong.length), list);
    for (const field of wrong) {
      const label = document.querySelector(`label[for="${CSS.escape(field.id)}"]`);
      const link = document.createElement("a");
      const item = document.createElement("li");
      link.href = `#${field.id}`;
      link.textContent = label ? label.textContent.trim() : field.name;
      link.addEventListener("click", (event) => { event.preventDefault(); field.focus(); });
      item.append(link);
      list.append(item);
    }
    wrong[0].closest("form").prepend(told);
  }
  if (wrong.length) {
    for (let inner = wrong[0].closest("details"); inner; inner = inner.parentElement.closest("details")) inner.open = true;
    wrong[0].focus();
  }
})();
