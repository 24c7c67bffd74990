// Says when the server is away: from when a page is, and what waits to be sent.
(() => {
  "use strict";
  const { keptAt, waiting, away, awaySend } = document.body.dataset;
  if ("serviceWorker" in navigator) navigator.serviceWorker.register("/worker.js").catch(() => {}); // the pages do without
  if (!keptAt) return;
  const told = document.createElement("div");
  const hour = new Date(Number(keptAt)).toLocaleString(document.documentElement.lang, { weekday: "short", hour: "2-digit", minute: "2-digit", hour12: document.documentElement.dataset.clock === "12" });
  told.className = "out-of-date";
  told.setAttribute("role", "status");
  told.textContent = away.replace("0", hour) + (waiting === "0" ? "" : ` ${awaySend.replace("0", waiting)}`);
  document.getElementById("main").prepend(told);
  document.body.classList.add("is-away");
  const look = async () => {
    try { if ((await fetch("/health/")).ok) location.reload(); } catch { /* it is still away */ }
  };
  setInterval(look, 5000);
  window.addEventListener("online", look);
})();
