// Moves the picture of the salt inside a piece by day: the slider, its keys, and play.
(() => {
  "use strict";
  const said = (percentage) => (percentage < 0.05 ? "0" : percentage.toFixed(1));
  const STEP_MS = 90;
  let playing = null;

  const show = (figure, index) => {
    const data = JSON.parse(figure.dataset.inside);
    figure.querySelectorAll("[data-ring]").forEach((ring) => {
      const ink = Math.min(data.rings[index][ring.dataset.ring] / data.full, 1);
      ring.setAttribute("fill-opacity", ink.toFixed(3));
    });
    const cursor = figure.querySelector("[data-cursor]");
    cursor.setAttribute("transform", `translate(${data.xs[index]} 0)`);
    for (const name of ["rim", "mean", "heart"]) {
      figure.querySelector(`[data-says="${name}"]`).textContent = said(data[name][index]);
    }
    const day = data.days[index].toFixed(1);
    figure.querySelector('[data-says="day"]').textContent = day;
    figure.querySelector("[data-slider]").setAttribute("aria-valuetext", figure.dataset.dayName.replace("0", day));
  };

  const stop = () => {
    clearInterval(playing);
    playing = null;
    document.querySelectorAll("[data-play]").forEach((button) => { button.textContent = button.dataset.play; });
  };

  document.addEventListener("input", (event) => {
    if (event.target.matches("[data-slider]")) {
      show(event.target.closest("[data-inside]"), Number(event.target.value));
    }
  });

  document.addEventListener("click", (event) => {
    const button = event.target.closest("[data-play]");
    if (!button) return;
    if (playing) { stop(); return; }
    const figure = button.closest("[data-inside]");
    const slider = figure.querySelector("[data-slider]");
    if (Number(slider.value) >= Number(slider.max)) slider.value = 0;
    if (matchMedia("(prefers-reduced-motion: reduce)").matches) {
      slider.value = slider.max; // nothing moves by itself: the end at once
      show(figure, Number(slider.value));
      return;
    }
    button.textContent = button.dataset.stop;
    playing = setInterval(() => {
      if (!figure.isConnected || Number(slider.value) >= Number(slider.max)) { stop(); return; }
      slider.value = Number(slider.value) + 1;
      show(figure, Number(slider.value));
    }, STEP_MS);
  });
})();
