// Keeps fire day up to date, and says in the title of the tab when something is due.
(() => {
  "use strict";
  const EVERY_MS = 1500;
  const TICK_MS = 1000;
  const fire = () => document.getElementById("fire");
  const title = document.title;
  let shownAt = Date.now();

  const isWriting = () => fire().contains(document.activeElement) && document.activeElement.matches("input, select");

  const look = async () => {
    if (isWriting()) return;
    try {
      const answer = await fetch(`${fire().dataset.rows}?seen=${fire().dataset.seen}`);
      fire().classList.toggle("out-of-date", !answer.ok);
      if (answer.status !== 200 || answer.redirected || isWriting()) return;
      const page = new DOMParser().parseFromString(await answer.text(), "text/html").getElementById("fire");
      if (!page) return;
      fire().replaceWith(page);
      window.htmx.process(page);
      const clock = document.querySelector(".clock");
      if (clock) clock.firstChild.data = `${page.dataset.clock} `;
      shownAt = Date.now();
    } catch {
      fire().classList.add("out-of-date");
    }
  };

  // By the clock of the page, which may not be this device's, and in whatever tab one is.
  const due = () => {
    const now = Number(fire().dataset.now) + (Date.now() - shownAt) / 1000;
    const first = [...fire().querySelectorAll("[data-at]")].find((each) => Number(each.dataset.at) <= now);
    fire().querySelectorAll("[data-at]").forEach((each) => each.classList.toggle("due", Number(each.dataset.at) <= now));
    document.title = first ? `● ${first.textContent.trim()}` : title;
  };

  setInterval(look, EVERY_MS);
  setInterval(due, TICK_MS);
})();
