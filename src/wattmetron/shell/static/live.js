// A recording under way: asks four times a second what came since and draws the last 20 seconds.
const WINDOW_S = 20, ASK_MS = 250, MOST = 60000;
const NAMES = {
  processor_ms: ["processor's time", "ms"], graphics_ms: ["graphics' time", "ms"], processor_use: ["processor busy", "%"],
  graphics_use: ["graphics busy", "%"], other_use: ["other programs", "%"], watts: ["at the wall", "W"],
  processor_c: ["processor's heat", "\u00b0C"], graphics_c: ["graphics' heat", "\u00b0C"],
  processor_mhz: ["processor's clock", "MHz"], graphics_mhz: ["graphics' clock", "MHz"], fan_rpm: ["fans", "1/min"], video_memory_gb: ["video memory", "GB"],
};
let timer = 0;

export function begin(panel) {
  const canvas = panel.querySelector("[data-live-canvas]");
  const state = { panel, canvas, since: 0, at: new Float64Array(MOST), ms: new Float32Array(MOST), count: 0, busy: false };
  const look = async () => {
    if (!panel.isConnected) { clearInterval(timer); timer = 0; return; }
    if (state.busy) return;
    state.busy = true;
    try {
      const answer = await fetch(`${panel.dataset.live}?since=${state.since}`, { cache: "no-store" });
      if (answer.ok) take(state, await answer.json());
    } catch (error) {
      say(panel, "wrong", "The application does not answer: what was recorded so far is not lost while it runs.");
    } finally {
      state.busy = false;
    }
  };
  clearInterval(timer);
  timer = setInterval(look, ASK_MS);
  look();
}

function say(panel, name, words) {
  const place = panel.querySelector(`[data-live-${name}]`);
  place.textContent = words;
  if (name === "wrong") place.hidden = !words;
}

function take(state, told) {
  state.since = told.frames;
  for (const [at, ms] of told.rows) {
    if (state.count === MOST) {
      state.at.copyWithin(0, MOST / 2);
      state.ms.copyWithin(0, MOST / 2);
      state.count = MOST / 2;
    }
    state.at[state.count] = at;
    state.ms[state.count] = ms;
    state.count += 1;
  }
  say(state.panel, "wrong", told.wrong);
  say(state.panel, "noted", told.noted);
  say(state.panel, "seconds", told.seconds.toFixed(0));
  say(state.panel, "frames", told.frames.toLocaleString("en"));
  const stop = document.getElementById("stop");
  if (stop) stop.disabled = !told.running;
  if (!told.running) { clearInterval(timer); timer = 0; }
  draw(state);
  list(state.panel, told.now);
}

function draw({ panel, canvas, at, ms, count }) {
  const width = canvas.clientWidth, height = canvas.clientHeight, ratio = window.devicePixelRatio || 1;
  if (canvas.width !== Math.round(width * ratio)) {
    canvas.width = Math.round(width * ratio);
    canvas.height = Math.round(height * ratio);
  }
  const pen = canvas.getContext("2d"), style = getComputedStyle(canvas);
  pen.setTransform(ratio, 0, 0, ratio, 0, 0);
  pen.clearRect(0, 0, width, height);
  if (!count) return;
  const end = at[count - 1], start = end - WINDOW_S;
  let first = count, high = 0, frames = 0, spent = 0;
  while (first > 0 && at[first - 1] >= start) first -= 1;
  for (let n = first; n < count; n += 1) {
    if (ms[n] > high) high = ms[n];
    if (at[n] > end - 1) { frames += 1; spent += ms[n]; }
  }
  say(panel, "rate", spent ? (1000 * frames / spent).toFixed(0) : "\u2013");
  const top = Math.max(20, high * 1.1);
  const low = new Float32Array(width).fill(Infinity), most = new Float32Array(width).fill(-1);
  for (let n = first; n < count; n += 1) {
    const x = Math.min(width - 1, Math.max(0, Math.floor((at[n] - start) / WINDOW_S * width)));
    if (ms[n] < low[x]) low[x] = ms[n];
    if (ms[n] > most[x]) most[x] = ms[n];
  }
  pen.fillStyle = pen.strokeStyle = style.color;
  pen.lineWidth = 1.2;
  pen.beginPath();
  for (let x = 0, down = false; x < width; x += 1) {
    if (most[x] < 0) continue;
    const high = height * (1 - most[x] / top), base = height * (1 - low[x] / top);
    if (down) pen.lineTo(x, high); else pen.moveTo(x, high);
    pen.lineTo(x, base);
    down = true;
  }
  pen.stroke();
  pen.font = "12px sans-serif";
  for (const step of [16.7, 33.3, 66.7]) {
    if (step > top) continue;
    const y = height * (1 - step / top);
    pen.globalAlpha = 0.35;
    pen.fillRect(0, y, width, 1);
    pen.globalAlpha = 1;
    pen.fillText(`${step} ms`, 4, y - 3);
  }
}

function list(panel, now) {
  const place = panel.querySelector("[data-live-now]");
  const rows = Object.entries(NAMES).filter(([key]) => key in now);
  if (place.children.length !== rows.length) {
    place.replaceChildren(...rows.map(() => {
      const row = document.createElement("div");
      row.append(document.createElement("dt"), document.createElement("dd"));
      return row;
    }));
  }
  rows.forEach(([key, [name, unit]], n) => {
    const value = unit === "%" ? now[key] * 100 : now[key];
    place.children[n].firstChild.textContent = name;
    place.children[n].lastChild.textContent = `${value < 100 ? value.toFixed(1) : value.toFixed(0)}\u202f${unit}`;
  });
}
