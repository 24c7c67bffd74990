// Keeps the list of today up to date, so that two phones in one kitchen see each other's ticks.
(() => {
  "use strict";
  const EVERY_MS = 4000;
  const LONGEST_S = 86400;
  const BUSY_AFTER_MS = 300;
  const list = () => document.getElementById("today");

  // Whoever is writing something down is not disturbed.
  const isWriting = () => [...list().querySelectorAll("details[open] input, details[open] select")].some(
    (field) => field.type !== "hidden" && field.value !== "") || list().contains(document.activeElement) && document.activeElement.matches("input, select");

  // What was opened stays open.
  const show = (page) => {
    const opened = [...list().querySelectorAll("details.more[open]")].map((each) => each.id);
    list().replaceWith(page);
    window.htmx.process(page);
    remind();
    opened.forEach((id) => document.getElementById(id)?.setAttribute("open", ""));
  };

  // A notice at the hour, while the page is open or installed; the calendar is the sure way.
  let timers = [];
  const notify = async ({ say, of }) => {
    const worker = await navigator.serviceWorker?.getRegistration();
    const words = { body: of, tag: `${say} ${of}`, icon: "/static/pantry/mark.svg" };
    if (worker) worker.showNotification(say, words); else new Notification(say, words);
  };
  const remind = () => {
    timers.forEach(clearTimeout);
    timers = [];
    const told = document.querySelector(".remind");
    if (!told || !("Notification" in window)) return;
    const isGranted = Notification.permission === "granted";
    told.querySelector("[role=status]").textContent = isGranted ? told.dataset.granted : "";
    const button = told.querySelector("button");
    button.hidden = Notification.permission !== "default";
    button.onclick = async () => { await Notification.requestPermission(); remind(); };
    if (!isGranted) return;
    // By the clock of the list, which may not be this device's.
    const inS = (each) => Number(each.dataset.at) - Number(list().dataset.now);
    const soon = [...document.querySelectorAll("[data-at]")].filter((each) => inS(each) < LONGEST_S);
    timers = soon.map((each) => setTimeout(notify, 1000 * inS(each), each.dataset));
  };

  const look = async () => {
    if (document.hidden || isWriting()) return;
    try {
      const answer = await fetch(location.pathname, { headers: { "X-Seen": list().dataset.seen } });
      list().classList.toggle("out-of-date", !answer.ok);
      if (answer.status !== 200) return;
      const page = new DOMParser().parseFromString(await answer.text(), "text/html").getElementById("today");
      if (page && !isWriting()) show(page);
    } catch {
      list().classList.add("out-of-date");
    }
  };

  document.addEventListener("submit", (event) => {
    const button = event.submitter;
    if (button) setTimeout(() => { button.classList.add("is-waiting"); button.setAttribute("aria-busy", "true"); }, BUSY_AFTER_MS);
  });
  // What is read without the server: the pages of the dishes that are on the list.
  const words = (text) => text.split(" ").filter(Boolean);
  const keep = () => {
    const { keep, ofDish, dishes, ofPiece, pieces } = list().dataset;
    const pages = (paths, ids) => words(ids).flatMap((id) => words(paths).map((path) => path.replace("/0/", `/${id}/`)));
    const all = [location.pathname, ...pages(ofDish, dishes), ...pages(ofPiece, pieces), ...words(keep)];
    navigator.serviceWorker?.controller?.postMessage({ keep: all });
  };
  window.addEventListener("load", () => setTimeout(keep, 2000));
  remind();
  document.addEventListener("plan-ready", look);
  setInterval(look, EVERY_MS);
})();
