// Keys, focus after a swap in place, theme and the list of keys. Everything else is the server's.
"use strict";

const LETTERS_OFF = "wattmetron-letters-off";
const typing = (element) => element && element.closest("input:not([type=checkbox]), select, textarea, [contenteditable]");
const shown = (element) => element && !element.disabled && element.checkVisibility();

function press(element) {
  if (!shown(element)) return false;
  if (element.matches("input")) {
    element.focus();
    element.select();
  } else {
    element.click();
  }
  return true;
}

function localControl(key) {
  const row = document.activeElement && document.activeElement.closest("[data-row]");
  if (!row) return null;
  return row.querySelector(`[data-local="${key}"]`) || (key === "w" && row.matches("a.meter") ? row : null);
}

// Each grid of pairings is one tab stop: arrow keys go from cell to cell, over gaps.
function moveInGrid(key) {
  const here = document.activeElement && document.activeElement.closest("[data-cell]");
  const steps = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] };
  if (!here || !steps[key]) return false;
  const grid = here.closest("[data-grid]");
  const [rows, columns] = grid.dataset.grid.split(",").map(Number);
  let [row, column] = here.dataset.cell.split(",").map(Number);
  for (;;) {
    row += steps[key][0];
    column += steps[key][1];
    if (row < 0 || column < 0 || row >= rows || column >= columns) return true;
    const next = grid.querySelector(`[data-cell="${row},${column}"]`);
    if (!next) continue;
    here.setAttribute("tabindex", "-1");
    next.setAttribute("tabindex", "0");
    next.focus();
    return true;
  }
}

function move(step) {
  const here = document.activeElement;
  const group = here && (here.matches("[data-candidate]") ? "[data-candidate]" : here.matches("#build .name") ? "#build .name" : null);
  if (!group) return false;
  const all = [...document.querySelectorAll(group)].filter(shown);
  const next = all[all.indexOf(here) + step];
  if (next) next.focus();
  return Boolean(next);
}

// From the finder down into what was found; Escape puts both away.
function leaveFinder(finder, key) {
  const found = document.getElementById("found");
  if (key === "Escape") {
    finder.value = "";
    found.replaceChildren();
    finder.blur();
    document.body.classList.remove("finding");
  } else if (key === "ArrowDown") {
    const first = found.querySelector("[data-candidate], button");
    if (first) first.focus();
  } else {
    return false;
  }
  return true;
}

document.addEventListener("keydown", (event) => {
  if (event.ctrlKey || event.metaKey || event.altKey || document.querySelector("dialog[open]")) return;
  const key = event.key;
  const menu = event.target.closest(".rowmenu[open]");
  if (menu && key === "Escape") {
    menu.open = false;
    menu.querySelector("summary").focus();
    return;
  }
  if (typing(event.target)) {
    if (event.target.id === "finder" && leaveFinder(event.target, key)) event.preventDefault();
    else if (key === "Escape") event.target.blur();
    return;
  }
  if (moveInGrid(key)) {
    event.preventDefault();
    return;
  }
  if (key === "ArrowDown" || key === "ArrowUp") {
    if (move(key === "ArrowDown" ? 1 : -1)) event.preventDefault();
    return;
  }
  const single = key.length === 1;
  if (single && key !== "?" && localStorage.getItem(LETTERS_OFF)) return;
  if (!single && key !== "Escape") return;
  const wanted = localControl(key) || document.querySelector(`[data-key="${CSS.escape(key)}"]`)
    || (key === "w" ? document.querySelector('[data-local="w"]') : null);
  if (press(wanted)) event.preventDefault();
});

// The menu of a row closes when one goes elsewhere.
document.addEventListener("click", (event) => {
  for (const menu of document.querySelectorAll(".rowmenu[open]")) if (!menu.contains(event.target)) menu.open = false;
});

// On a narrow screen the finder opens as a sheet over the page.
document.addEventListener("click", (event) => {
  const opener = event.target.closest("[data-sheet]");
  if (!opener) return;
  const field = document.getElementById(opener.dataset.sheet);
  document.body.classList.add("finding");
  field.focus();
});
document.addEventListener("focusout", (event) => {
  if (event.target.id !== "finder") return;
  setTimeout(() => {
    const found = document.getElementById("found");
    if (document.activeElement?.id !== "finder" && !found?.contains(document.activeElement)) document.body.classList.remove("finding");
  }, 150);
});

document.addEventListener("change", (event) => {
  if (!event.target.matches("[data-views]")) return;
  const where = event.target.value;
  if (where.startsWith("#")) document.querySelector(where).scrollIntoView();
  else htmx.ajax("GET", where, { target: "#desk", swap: "morph:outerHTML" }).then(() => history.pushState({}, "", where));
});

// Focus goes to what has newly opened; when a swap closes, back to the row that it was about.
let openedBefore = new Set();
let swapKind = "";

document.addEventListener("htmx:beforeSwap", () => {
  openedBefore = new Set([...document.querySelectorAll("#desk [data-focus]")].map((element) => element.id));
  const swap = document.getElementById("swap");
  if (swap) swapKind = swap.dataset.kind;
});

document.addEventListener("htmx:afterSettle", (event) => {
  const target = event.detail.target;
  if (!target || target.id !== "desk") return;
  const opened = [...document.querySelectorAll("#desk [data-focus]")].find((element) => !openedBefore.has(element.id));
  const lost = !document.activeElement || document.activeElement === document.body;
  if (opened) {
    ([...opened.querySelectorAll("[data-candidate]")].find(shown) || opened).focus({ preventScroll: true });
    const strip = document.querySelector(".meters");
    const top = opened.getBoundingClientRect().top;
    const under = strip ? strip.getBoundingClientRect().bottom : 0;
    if (top < under || top > window.innerHeight * 0.6) opened.scrollIntoView({ block: "start" });
  } else if (lost) {
    const row = swapKind && !document.getElementById("swap") && document.querySelector(`#build [id^="row-${swapKind}-"]`);
    (row || document.querySelector("#desk [data-focus]") || document.getElementById("desk")).focus({ preventScroll: true });
  }
});

// The place in the rail follows the address.
function markPlace() {
  for (const link of document.querySelectorAll(".rail a")) {
    if (location.pathname.startsWith(link.dataset.place || link.getAttribute("href"))) link.setAttribute("aria-current", "page");
    else link.removeAttribute("aria-current");
  }
}

for (const kind of ["htmx:pushedIntoHistory", "htmx:afterSettle", "htmx:historyRestore"]) document.addEventListener(kind, markPlace);

// What was typed but not yet sent is never overwritten by an answer to an earlier request.
const unsent = new WeakSet();

document.addEventListener("input", (event) => {
  if (event.target.form) unsent.add(event.target);
});

document.addEventListener("htmx:configRequest", (event) => {
  const form = event.detail.elt.closest("form");
  if (form) for (const element of form.elements) unsent.delete(element);
});

// Chromium breaks down where a list of suggestions is moved in place: such a piece is taken out and put in again.
const movedInPlace = Element.prototype.moveBefore;
if (movedInPlace) {
  const suggests = "datalist, [list]";
  Element.prototype.moveBefore = function (node, before) {
    const element = node.nodeType === Node.ELEMENT_NODE;
    if (element && (node.matches(suggests) || node.querySelector(suggests))) this.insertBefore(node, before);
    else movedInPlace.call(this, node, before);
  };
}

if (window.Idiomorph) {
  // Long lists of suggestions hardly ever change: they are compared as a whole.
  Idiomorph.defaults.callbacks.beforeNodeMorphed = (old, next) =>
    !unsent.has(old) && !(old.nodeName === "DATALIST" && old.isEqualNode(next));
  // What one has folded or unfolded stays so while the page around it changes.
  Idiomorph.defaults.callbacks.beforeAttributeUpdated = (name, node) => name !== "open" || node.tagName !== "DETAILS" || node.classList.contains("rowmenu");
}

// Exact figures of the row under the pointer or with the focus; a figure copied as a sentence.
for (const kind of ["mouseover", "focusin"]) {
  document.addEventListener(kind, (event) => {
    const row = event.target.closest("[data-readout]");
    const readout = document.getElementById("readout");
    if (row && readout && row.dataset.readout) readout.textContent = row.dataset.readout;
  });
}

document.addEventListener("click", async (event) => {
  const button = event.target.closest("[data-copy]");
  if (!button) return;
  const source = document.getElementById(button.dataset.copy);
  try {
    await navigator.clipboard.writeText(source.textContent);
    button.textContent = "Copied";
  } catch {
    getSelection().selectAllChildren(source);
    button.textContent = "Selected: copy it with your keys";
  }
});

// What waits for another piece is asked for when that one is there, or was stopped, and the next change is not made
// meanwhile.
const PAUSE_MS = 700;
function release(piece) {
  for (const next of document.querySelectorAll(`[data-after="${CSS.escape(piece.id)}"]`)) {
    next.removeAttribute("data-after");
    const id = next.id;
    setTimeout(() => {
      if (next.isConnected && next.id === id) htmx.trigger(next, "again");
    }, PAUSE_MS);
  }
}
document.addEventListener("htmx:afterSettle", (event) => {
  const piece = event.detail.elt.closest && event.detail.elt.closest(".later");
  if (piece && !piece.querySelector("[data-stop]")) release(piece);
});

// What is worked out after the page can be stopped, and asked for again.
document.addEventListener("click", (event) => {
  const stop = event.target.closest("[data-stop]");
  const again = event.target.closest("[data-again]");
  const piece = (stop || again) && event.target.closest(".later");
  if (!piece) return;
  if (again) {
    htmx.trigger(piece, "again");
    return;
  }
  htmx.trigger(piece, "htmx:abort");
  const line = document.createElement("p");
  line.className = "small quiet";
  line.textContent = "Stopped. ";
  const button = document.createElement("button");
  button.type = "button";
  button.className = "linkish";
  button.dataset.again = "";
  button.textContent = "Work it out";
  line.append(button);
  piece.replaceChildren(line);
  release(piece);
});

document.addEventListener("htmx:afterRequest", (event) => {
  const piece = event.detail.elt.closest && event.detail.elt.closest(".later");
  if (piece && event.detail.xhr.status >= 400) {
    const stop = piece.querySelector("[data-stop]");
    if (stop) stop.click();
  }
});

document.addEventListener("htmx:sendError", () => {
  document.getElementById("gone").hidden = false;
});

// Whatever answers in our place, such as a proxy, never takes the page away.
document.addEventListener("htmx:beforeSwap", (event) => {
  const { target, xhr } = event.detail;
  if (!target || target.id !== "desk" || xhr.responseText.includes('id="desk"')) return;
  event.detail.shouldSwap = false;
  document.getElementById("gone").hidden = false;
});

// What could not be done is told above the page, until it is put away or something else was done.
document.addEventListener("click", (event) => {
  if (event.target.closest("[data-dismiss]")) document.getElementById("trouble").replaceChildren();
});
document.addEventListener("htmx:afterSettle", (event) => {
  if (event.detail.target && event.detail.target.id === "desk") document.getElementById("trouble").replaceChildren();
});

document.addEventListener("htmx:afterSwap", () => {
  document.getElementById("gone").hidden = true;
});

document.addEventListener("alpine:init", () => {
  Alpine.data("chrome", () => ({
    keys() {
      document.getElementById("keys").showModal();
    },
    theme() {
      const dark = matchMedia("(prefers-color-scheme: dark)").matches;
      const now = document.documentElement.dataset.theme || (dark ? "night" : "paper");
      const next = now === "night" ? "paper" : "night";
      document.documentElement.dataset.theme = next;
      document.cookie = `theme=${next}; path=/; max-age=31536000; samesite=strict`;
    },
  }));
  Alpine.data("keyhelp", () => ({
    init() {
      this.$refs.off.checked = Boolean(localStorage.getItem(LETTERS_OFF));
    },
    toggle() {
      if (this.$refs.off.checked) localStorage.setItem(LETTERS_OFF, "1");
      else localStorage.removeItem(LETTERS_OFF);
    },
    close() {
      document.getElementById("keys").close();
    },
  }));
});

// Ticks of an assembly list stay on this device, under the build that they belong to.
function tickStore(list) {
  try {
    return JSON.parse(localStorage.getItem(list.dataset.ticks)) || {};
  } catch {
    return {};
  }
}

function countTicks(list) {
  const boxes = [...list.querySelectorAll("input[data-tick]")];
  const done = boxes.filter((box) => box.checked).length;
  document.getElementById("ticked").textContent = `${done} of ${boxes.length} done`;
}

function restoreTicks() {
  const list = document.querySelector("[data-ticks]");
  if (!list) return;
  const done = tickStore(list);
  for (const box of list.querySelectorAll("input[data-tick]")) box.checked = Boolean(done[box.dataset.tick]);
  countTicks(list);
}

document.addEventListener("change", (event) => {
  if (!event.target.matches("input[data-tick]")) return;
  const list = event.target.closest("[data-ticks]");
  const done = tickStore(list);
  done[event.target.dataset.tick] = event.target.checked;
  localStorage.setItem(list.dataset.ticks, JSON.stringify(done));
  countTicks(list);
});

document.addEventListener("click", (event) => {
  if (!event.target.closest("[data-untick]")) return;
  localStorage.removeItem(document.querySelector("[data-ticks]").dataset.ticks);
  restoreTicks();
});

for (const kind of ["DOMContentLoaded", "htmx:afterSettle", "htmx:historyRestore"]) document.addEventListener(kind, restoreTicks);

// Panels remember whether they are open; a link to a folded one unfolds it.
const FOLDS = "wattmetron-open-panels";

function openPanels() {
  try {
    return JSON.parse(localStorage.getItem(FOLDS)) || {};
  } catch {
    return {};
  }
}

function unfold(id) {
  const panel = id && document.getElementById(id);
  if (panel && panel.tagName === "DETAILS") panel.open = true;
  return panel;
}

function restoreFolds() {
  const kept = openPanels();
  for (const panel of document.querySelectorAll("details[data-remember]:not([data-restored])")) {
    panel.dataset.restored = "";
    if (panel.id in kept) panel.open = panel.open || kept[panel.id];
  }
  if (location.hash) unfold(decodeURIComponent(location.hash.slice(1)));
}

document.addEventListener("toggle", (event) => {
  if (!event.target.matches || !event.target.matches("details[data-remember]")) return;
  const kept = openPanels();
  kept[event.target.id] = event.target.open;
  localStorage.setItem(FOLDS, JSON.stringify(kept));
}, true);

document.addEventListener("click", (event) => {
  const link = event.target.closest("[data-opens]");
  if (!link) return;
  const panel = unfold(link.dataset.opens);
  if (!panel) return;
  event.preventDefault();
  panel.scrollIntoView({ block: "start" });
  (panel.querySelector("summary") || panel).focus({ preventScroll: true });
});

for (const kind of ["DOMContentLoaded", "htmx:afterSettle", "htmx:historyRestore"]) document.addEventListener(kind, restoreFolds);

// Tables sort by their heads, in the page: figures by size, words by the alphabet.
const figure = (text) => {
  const found = text.replace(/,/g, "").match(/[−-]?\d+(\.\d+)?/);
  return found ? Number(found[0].replace("−", "-")) : null;
};

function sortBy(table, column, down) {
  const body = table.tBodies[0];
  const rows = [...body.rows];
  const text = (row) => (row.cells[column] ? row.cells[column].textContent.trim() : "");
  const asFigures = rows.filter((row) => figure(text(row)) !== null).length * 2 > rows.length;
  const least = down ? -1 : 1;
  rows.sort((one, other) => {
    if (!asFigures) return least * text(one).localeCompare(text(other));
    const [a, b] = [figure(text(one)), figure(text(other))];
    if (a === null || b === null) return (a === null) - (b === null);
    return least * (a - b);
  });
  body.append(...rows);
}

function makeSortable() {
  for (const table of document.querySelectorAll("table[data-sort]")) {
    const heads = [...table.tHead.rows[0].cells];
    heads.forEach((head, column) => {
      if (!head.textContent.trim() || head.querySelector("button, a")) return;
      const button = document.createElement("button");
      button.type = "button";
      button.className = "sorter";
      button.append(...head.childNodes);
      head.append(button);
      button.addEventListener("click", () => {
        const down = head.getAttribute("aria-sort") === "ascending";
        for (const other of heads) other.removeAttribute("aria-sort");
        head.setAttribute("aria-sort", down ? "descending" : "ascending");
        sortBy(table, column, down);
      });
    });
  }
}

for (const kind of ["DOMContentLoaded", "htmx:afterSettle", "htmx:historyRestore"]) document.addEventListener(kind, makeSortable);
