// Keeps the list of today up to date, so that two phones in one kitchen see each other's ticks.
(() => {
  "use strict";
  const EVERY_MS = 4000;
  const BUSY_AFTER_MS = 300;
  const list = () => document.getElementById("today");

  // Whoever is writing something down is not disturbed.
  const isWriting = () => [...list().querySelectorAll("details.write[open] input, details.write[open] select")].some(
    (field) => field.type !== "hidden" && field.value !== "") || list().contains(document.activeElement) && document.activeElement.matches("input, select");

  const look = async () => {
    if (document.hidden || isWriting()) return;
    try {
      const answer = await fetch(location.pathname, { headers: { "X-Seen": list().dataset.seen } });
      list().classList.toggle("out-of-date", !answer.ok);
      if (answer.status !== 200) return;
      const page = new DOMParser().parseFromString(await answer.text(), "text/html").getElementById("today");
      if (page && !isWriting()) list().replaceWith(page);
    } catch {
      list().classList.add("out-of-date");
    }
  };

  document.addEventListener("submit", (event) => {
    const button = event.submitter;
    if (button) setTimeout(() => { button.classList.add("is-waiting"); button.setAttribute("aria-busy", "true"); }, BUSY_AFTER_MS);
  });
  // What is read without the server: the pages of the dishes that are on the list.
  const keep = () => navigator.serviceWorker?.controller?.postMessage({ keep: [location.pathname, ...(list().dataset.keep || "").split(" ").filter(Boolean)] });
  window.addEventListener("load", () => setTimeout(keep, 2000));
  setInterval(look, EVERY_MS);
})();
