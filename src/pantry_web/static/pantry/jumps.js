// Single-key jumps between the pages, listed under "?"; silent while something is typed.
(() => {
  "use strict";
  const typing = (element) => element.closest("input, select, textarea, dialog") !== null;
  const keys = document.getElementById("keys");
  const opener = document.querySelector("[data-keys]");

  if (opener) {
    opener.hidden = false;
    opener.addEventListener("click", () => keys.showModal());
  }

  document.addEventListener("keydown", (event) => {
    if (!keys || event.ctrlKey || event.metaKey || event.altKey || typing(event.target)) return;
    if (event.key === "?") { keys.showModal(); return; }
    const link = document.querySelector(`[data-jump="${CSS.escape(event.key)}"]`);
    if (link) link.click();
  });
})();
