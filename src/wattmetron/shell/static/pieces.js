// What pieces of a page keep to themselves: menus, folds, ticks, sorted tables, the finder. Each is an Alpine component
// that its template names; nothing here listens to the whole page.
"use strict";

const HERE = document.currentScript.src;
const FOLDS = "wattmetron-open-panels";
const LETTERS_OFF = "wattmetron-letters-off";

// What stands in the store of this browser under a key, as an object.
function stored(key) {
  try {
    return JSON.parse(localStorage.getItem(key)) || {};
  } catch {
    return {};
  }
}

function unfold(id) {
  const panel = id && document.getElementById(id);
  if (panel && panel.tagName === "DETAILS") panel.open = true;
  return panel;
}

// Tables sort by their heads, in the page: figures by size, words by the alphabet.
const figure = (text) => {
  const digits = text.replace(/,/g, "").match(/[−-]?\d+(\.\d+)?/);
  return digits ? Number(digits[0].replace("−", "-")) : null;
};

function sortBy(table, column, down) {
  const body = table.tBodies[0];
  const rows = [...body.rows];
  const text = (row) => (row.cells[column] ? row.cells[column].textContent.trim() : "");
  const asFigures = rows.filter((row) => figure(text(row)) !== null).length * 2 > rows.length;
  const least = down ? -1 : 1;
  rows.sort((row, other) => {
    if (!asFigures) return least * text(row).localeCompare(text(other));
    const [a, b] = [figure(text(row)), figure(text(other))];
    if (a === null || b === null) return (a === null) - (b === null);
    return least * (a - b);
  });
  body.append(...rows);
}

// Whether something is typed that the rest of a page would take away when it is put in place: it waits until then.
function isTyping() {
  const { activeElement } = document;
  const typed = activeElement?.defaultValue !== undefined && activeElement.value !== activeElement.defaultValue;
  return typed || Boolean(document.getElementById("found")?.childElementCount);
}

const LEFT_MS = 150;
const PAUSE_MS = 700;
const PIECES = {
  // The menu of a row closes when one goes elsewhere; Escape goes back to its opener.
  rowmenu: () => ({
    close() {
      this.$root.open = false;
    },
    leave(event) {
      if (!this.$root.open) return;
      event.stopPropagation();
      this.close();
      this.$root.querySelector("summary").focus();
    },
  }),

  // Panels remember whether they are open; what the address asks about is open in any case.
  fold: () => ({
    init() {
      const folds = stored(FOLDS);
      const { id } = this.$root;
      if (id in folds) this.$root.open = this.$root.open || folds[id];
      if (location.hash === `#${id}`) this.$root.open = true;
    },
    remember() {
      localStorage.setItem(FOLDS, JSON.stringify({ ...stored(FOLDS), [this.$root.id]: this.$root.open }));
    },
  }),

  // A link to a folded panel unfolds it.
  opener: () => ({
    open(event) {
      const panel = unfold(this.$root.getAttribute("href").slice(1));
      if (!panel) return;
      event.preventDefault();
      panel.scrollIntoView({ block: "start" });
      (panel.querySelector("summary") || panel).focus({ preventScroll: true });
    },
  }),

  // Ticks of an assembly list stay on this device, under the build that they belong to.
  ticks: () => ({
    init() {
      const done = stored(this.$root.dataset.ticks);
      for (const box of this.boxes()) box.checked = Boolean(done[box.dataset.tick]);
      this.count();
    },
    boxes() {
      return [...this.$root.querySelectorAll("input[data-tick]")];
    },
    count() {
      const boxes = this.boxes();
      this.$root.querySelector("#ticked").textContent = `${boxes.filter((box) => box.checked).length} of ${boxes.length} done`;
    },
    save() {
      const done = Object.fromEntries(this.boxes().map((box) => [box.dataset.tick, box.checked]));
      localStorage.setItem(this.$root.dataset.ticks, JSON.stringify(done));
      this.count();
    },
    clear() {
      localStorage.removeItem(this.$root.dataset.ticks);
      this.init();
    },
  }),

  sortable: () => ({
    init() {
      for (const head of this.$root.tHead.rows[0].cells) {
        if (!head.textContent.trim() || head.querySelector("button, a")) continue;
        const button = document.createElement("button");
        button.type = "button";
        button.className = "sorter";
        button.append(...head.childNodes);
        head.append(button);
      }
    },
    sort(event) {
      const button = event.target.closest(".sorter");
      if (!button) return;
      const head = button.closest("th, td");
      const down = head.getAttribute("aria-sort") === "ascending";
      for (const other of head.parentElement.cells) other.removeAttribute("aria-sort");
      head.setAttribute("aria-sort", down ? "descending" : "ascending");
      sortBy(this.$root, head.cellIndex, down);
    },
  }),

  // A figure copied as a sentence.
  copier: () => ({
    async copy() {
      const source = document.getElementById(this.$root.dataset.copy);
      try {
        await navigator.clipboard.writeText(source.textContent);
        this.$root.textContent = "Copied";
      } catch {
        getSelection().selectAllChildren(source);
        this.$root.textContent = "Selected: copy it with your keys";
      }
    },
  }),

  viewpicker: () => ({
    go() {
      const where = this.$root.value;
      if (where.startsWith("#")) document.querySelector(where).scrollIntoView();
      else htmx.ajax("GET", where, { target: "#desk", swap: "morph:outerHTML" }).then(() => history.pushState({}, "", where));
    },
  }),

  // On a narrow screen the finder opens as a sheet over the page; Escape puts it away, down goes to what was found.
  finder: () => ({
    open() {
      document.body.classList.add("finding");
      document.getElementById("finder").focus();
    },
    close() {
      const field = document.getElementById("finder");
      field.value = "";
      document.getElementById("found").replaceChildren();
      field.blur();
      document.body.classList.remove("finding");
    },
    down(event) {
      const first = document.querySelector("#found [data-candidate], #found button");
      if (first) first.focus();
      event.preventDefault();
    },
    left() {
      setTimeout(() => {
        const stays = ["finder", "found"].some((id) => document.getElementById(id)?.contains(document.activeElement));
        if (!stays) document.body.classList.remove("finding");
      }, LEFT_MS);
    },
  }),

  // What could not be done is told above the page, until it is put away or something else was done.
  trouble: () => ({
    dismiss(event) {
      if (event.target.closest("[data-dismiss]")) this.$root.replaceChildren();
    },
    settled(event) {
      if (event.detail.target && event.detail.target.id === "desk") this.$root.replaceChildren();
    },
  }),

  // Whatever answers in our place, such as a proxy, never takes the page away; nor does the rest of a page that was left.
  gone: () => ({
    show() {
      this.$root.hidden = false;
    },
    hide() {
      this.$root.hidden = true;
    },
    guard(event) {
      const { target, xhr, requestConfig } = event.detail;
      const isLater = /(piece=1|rest=\d)/.test(requestConfig.path);
      if (isLater && (!requestConfig.elt.isConnected || isTyping())) event.detail.shouldSwap = false;
      if (!target || target.id !== "desk" || /id="(desk|rest-words)"/.test(xhr.responseText)) return;
      event.detail.shouldSwap = false;
      this.show();
    },
  }),

  // The place in the rail follows the address.
  rail: () => ({
    mark() {
      for (const link of this.$root.querySelectorAll("a")) {
        if (location.pathname.startsWith(link.getAttribute("href"))) link.setAttribute("aria-current", "page");
        else link.removeAttribute("aria-current");
      }
    },
  }),

  // Exact figures of the row under the pointer or with the focus. The line is the server's again after a swap.
  readout: () => ({
    tell(event) {
      const row = event.target.closest("[data-readout]");
      const line = this.$root.querySelector("#readout");
      if (row && line && row.dataset.readout) line.textContent = row.dataset.readout;
    },
  }),

  // What is worked out after the page can be stopped, and asked for again. What waits for it is asked for when it is
  // there, or was stopped, and the next change is not made meanwhile.
  later: () => ({
    press(event) {
      if (event.target.closest("[data-again]")) this.again();
      else if (event.target.closest("[data-stop]")) this.stop();
    },
    again() {
      if (this.$root.hasAttribute("hx-get")) {
        htmx.trigger(this.$root, "again");
        return;
      }
      // Copies, for what was taken out has ended its own looking.
      this.$root.replaceChildren(...this.stopped.map((child) => child.cloneNode(true)));
      htmx.process(this.$root);
    },
    stop() {
      htmx.trigger(this.$root, "htmx:abort");
      for (const asking of this.$root.querySelectorAll("[hx-get]")) htmx.trigger(asking, "htmx:abort");
      this.stopped = [...this.$root.children];
      const line = document.createElement("p");
      line.className = "small quiet";
      line.textContent = "Stopped. ";
      const button = document.createElement("button");
      button.type = "button";
      button.className = "linkish";
      button.dataset.again = "";
      button.textContent = "Work it out";
      line.append(button);
      this.$root.replaceChildren(line);
      this.release();
    },
    settled() {
      if (!this.$root.querySelector("[data-stop]")) this.release();
    },
    answered(event) {
      if (event.detail.xhr.status >= 400 && this.$root.querySelector("[data-stop]")) this.stop();
    },
    release() {
      for (const next of document.querySelectorAll(`[data-after="${CSS.escape(this.$root.id)}"]`)) {
        next.removeAttribute("data-after");
        const id = next.id;
        setTimeout(() => {
          if (next.isConnected && next.id === id) htmx.trigger(next, "again");
        }, PAUSE_MS);
      }
    },
  }),

  chrome: () => ({
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
  }),

  keyhelp: () => ({
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
  }),

  // A recording under way; what draws it is loaded where it is needed.
  live: () => ({
    async init() {
      const { begin } = await import(new URL("live.js", HERE));
      begin(this.$root);
    },
  }),

  // Runs to compare: the boxes that are ticked become the address.
  sides: () => ({
    pick(event) {
      const { side } = event.target.dataset;
      if (!side) return;
      const boxes = [...this.$root.querySelectorAll(`[data-side="${side}"]:checked`)];
      this.$root.elements[side].value = boxes.map((box) => box.value).join(",");
    },
  }),
};

// While a swap takes a piece off an element, what happens to that element no longer concerns the piece.
function whilePresent(piece) {
  const guarded = Object.entries(piece).map(([name, act]) => [name, function (...rest) {
    return this.$root ? act.apply(this, rest) : undefined;
  }]);
  return Object.fromEntries(guarded);
}

document.addEventListener("alpine:init", () => {
  for (const [name, piece] of Object.entries(PIECES)) Alpine.data(name, () => whilePresent(piece()));
});
