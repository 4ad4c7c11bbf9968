"use strict";
(() => {
  const findings = [...document.querySelectorAll("details.finding")];
  const search = document.getElementById("search");
  if (!search) return;
  const severity = document.getElementById("severity");
  const table = document.getElementById("table");
  const shown = document.getElementById("shown");
  const texts = new Map();
  const textOf = (element) => {
    if (!texts.has(element)) texts.set(element, element.textContent.toLowerCase());
    return texts.get(element);
  };
  const apply = () => {
    const wanted = search.value.trim().toLowerCase();
    let count = 0;
    for (const finding of findings) {
      const fits = (!severity.value || finding.dataset.severity === severity.value)
        && (!table.value || finding.dataset.table === table.value)
        && (!wanted || textOf(finding).includes(wanted));
      finding.hidden = !fits;
      if (fits) count++;
      const rows = [...finding.querySelectorAll("tbody.rows > tr")];
      const some = wanted !== "" && rows.some((row) => textOf(row).includes(wanted));
      for (const row of rows) row.hidden = some && !textOf(row).includes(wanted);
    }
    shown.textContent = count === findings.length ? "" : count + " of " + findings.length + " findings";
  };
  for (const control of [search, severity, table]) control.addEventListener("input", apply);
  search.form.addEventListener("submit", (event) => event.preventDefault());
  const openAsked = () => {
    const asked = location.hash && document.getElementById(location.hash.slice(1));
    if (asked && asked.matches("details")) asked.open = true;
  };
  addEventListener("hashchange", openAsked);
  openAsked();
  let opened = [];
  addEventListener("beforeprint", () => {
    opened = findings.filter((finding) => !finding.open);
    for (const finding of opened) finding.open = true;
  });
  addEventListener("afterprint", () => { for (const finding of opened) finding.open = false; });
})();
