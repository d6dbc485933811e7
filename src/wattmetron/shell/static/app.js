// What concerns the page as a whole: its keys, the focus after a swap in place, and what was typed but not sent. What a
// piece keeps to itself is in pieces.js; everything else is the server's.
"use strict";

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

document.addEventListener("keydown", (event) => {
  if (event.ctrlKey || event.metaKey || event.altKey || document.querySelector("dialog[open]")) return;
  const key = event.key;
  if (typing(event.target)) {
    if (key === "Escape") event.target.blur();
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
  if (single && key !== "?" && localStorage.getItem("wattmetron-letters-off")) return;
  if (!single && key !== "Escape") return;
  const wanted = localControl(key) || document.querySelector(`[data-key="${CSS.escape(key)}"]`)
    || (key === "w" ? document.querySelector('[data-local="w"]') : null);
  if (press(wanted)) event.preventDefault();
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
  // Long lists of suggestions hardly ever change: they are compared as a whole. What was worked out after the page, or is
  // under way, stays while its question is the same.
  Idiomorph.defaults.callbacks.beforeNodeMorphed = (old, next) =>
    !unsent.has(old) && !(old.nodeName === "DATALIST" && old.isEqualNode(next))
    && !(old.id && old.id === next.id && old.matches(".later"));
  // What one has folded or unfolded stays so while the page around it changes.
  Idiomorph.defaults.callbacks.beforeAttributeUpdated = (name, node) => name !== "open" || node.tagName !== "DETAILS" || node.classList.contains("rowmenu");
}
