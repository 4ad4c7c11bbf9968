"use strict";
(() => {
  const frame = document.getElementById("frame");
  const svg = frame.querySelector("svg.tables");
  const whole = { x: 0, y: 0, width: svg.viewBox.baseVal.width, height: svg.viewBox.baseVal.height };
  let seen = { ...whole };
  svg.setAttribute("width", "100%");
  svg.setAttribute("height", "100%");
  const show = () => svg.setAttribute("viewBox", [seen.x, seen.y, seen.width, seen.height].join(" "));
  const zoom = (by, px = 0.5, py = 0.5) => {
    const width = Math.min(Math.max(seen.width * by, 120), whole.width * 4);
    const height = seen.height * (width / seen.width);
    seen = { x: seen.x + (seen.width - width) * px, y: seen.y + (seen.height - height) * py, width, height };
    show();
  };
  const move = (dx, dy) => { seen.x += dx * seen.width; seen.y += dy * seen.height; show(); };
  const all = () => { seen = { ...whole }; show(); };
  /* A large map begins with a part of it that can be read. */
  const begin = () => {
    const box = frame.getBoundingClientRect();
    const scale = Math.min(box.width / whole.width, box.height / whole.height);
    const least = 0.7;
    if (scale < 0.5) { seen = { x: 0, y: 0, width: box.width / least, height: box.height / least }; }
    show();
  };
  document.getElementById("closer").addEventListener("click", () => zoom(0.8));
  document.getElementById("farther").addEventListener("click", () => zoom(1.25));
  document.getElementById("whole").addEventListener("click", all);
  frame.addEventListener("wheel", (event) => {
    event.preventDefault();
    const box = frame.getBoundingClientRect();
    zoom(event.deltaY < 0 ? 0.9 : 1.11, (event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height);
  }, { passive: false });
  let drag = null;
  frame.addEventListener("pointerdown", (event) => { drag = { x: event.clientX, y: event.clientY, moved: false }; });
  frame.addEventListener("pointermove", (event) => {
    if (!drag || event.buttons === 0) { return; }
    const box = frame.getBoundingClientRect();
    const scale = Math.max(seen.width / box.width, seen.height / box.height);
    const dx = event.clientX - drag.x, dy = event.clientY - drag.y;
    if (Math.abs(dx) + Math.abs(dy) > 3) { drag.moved = true; }
    seen.x -= dx * scale; seen.y -= dy * scale;
    drag.x = event.clientX; drag.y = event.clientY;
    show();
  });
  const details = [...document.querySelectorAll("section.table")];
  const choose = (table) => {
    for (const section of details) { section.hidden = section.dataset.table !== table; }
    for (const link of svg.querySelectorAll("g.link")) {
      link.classList.toggle("chosen", link.dataset.child === table || link.dataset.parent === table);
    }
    document.getElementById("everything").hidden = false;
  };
  document.getElementById("everything").addEventListener("click", (event) => {
    for (const section of details) { section.hidden = false; }
    for (const link of svg.querySelectorAll("g.link")) { link.classList.remove("chosen"); }
    event.target.hidden = true;
  });
  for (const card of svg.querySelectorAll("g.card")) {
    card.addEventListener("click", () => { if (!drag || !drag.moved) { choose(card.dataset.table); } });
    card.addEventListener("keydown", (event) => {
      if (event.key === "Enter" || event.key === " ") { event.preventDefault(); choose(card.dataset.table); }
    });
  }
  frame.addEventListener("keydown", (event) => {
    const keys = { "+": () => zoom(0.8), "-": () => zoom(1.25), "0": all, ArrowLeft: () => move(-0.1, 0),
      ArrowRight: () => move(0.1, 0), ArrowUp: () => move(0, -0.1), ArrowDown: () => move(0, 0.1) };
    if (keys[event.key] && !event.ctrlKey && !event.metaKey) { event.preventDefault(); keys[event.key](); }
  });
  begin();
})();
