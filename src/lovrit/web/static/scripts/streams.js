// One stream a browser. Every page asks this shared worker for its channels; it keeps a single stream to the server
// for all of them, since a browser has six connections to a host and presses need one.

export {};

const FORGOTTEN_MS = 40_000;
const GATHER_MS = 60;

/** @type {Map<MessagePort, {channels: Set<string>, seen: number}>} */
const pages = new Map();
/** @type {EventSource | null} */
let stream = null;
let opened = "";
/** @type {ReturnType<typeof setTimeout> | undefined} */
let gathering;
let away = false;

/** @param {unknown} message */
function toAll(message) {
  for (const port of pages.keys()) port.postMessage(message);
}

function wanted() {
  const now = Date.now();
  for (const [port, page] of pages) if (now - page.seen > FORGOTTEN_MS) pages.delete(port);
  return [...new Set([...pages.values()].flatMap((page) => [...page.channels]))].sort();
}

/** Open the stream anew where a channel is missing from it; one too many is no harm until then. @param {boolean} anew */
function reopen(anew) {
  const channels = wanted();
  const missing = channels.some((channel) => !opened.split(" ").includes(channel));
  if (!channels.length) {
    stream?.close();
    stream = null;
    opened = "";
    return;
  }
  if (stream && stream.readyState !== EventSource.CLOSED && !missing && !anew) return;
  stream?.close();
  opened = channels.join(" ");
  const made = new EventSource(`/stream?${channels.map((channel) => `on=${channel}`).join("&")}`);
  stream = made;
  made.addEventListener("said", (event) => {
    const said = JSON.parse(event.data);
    for (const [port, page] of pages) if (page.channels.has(said.on)) port.postMessage(said);
  });
  made.onopen = () => {
    away = false;
    toAll({ event: "back" });
  };
  made.onerror = () => {
    away = true;
    toAll({ event: "away" });
    if (made.readyState === EventSource.CLOSED) setTimeout(() => { if (stream === made) reopen(true); }, 2000);
  };
}

function soon() {
  clearTimeout(gathering);
  gathering = setTimeout(() => reopen(false), GATHER_MS);
}

/** @param {MessagePort} port @param {{on?: string[], leave?: boolean}} said */
function heard(port, said) {
  if (said.leave) pages.delete(port);
  else if (said.on) {
    pages.set(port, { channels: new Set(said.on), seen: Date.now() });
    if (away) port.postMessage({ event: "away" });
    if (said.on.every((channel) => opened.split(" ").includes(channel))) opened = ""; // it wants to hear how things stand
  } else {
    const page = pages.get(port);
    if (page) page.seen = Date.now();
    else port.postMessage({ event: "who" });
  }
  soon();
}

self.addEventListener("connect", (event) => {
  const [port] = /** @type {MessageEvent} */ (event).ports;
  port.onmessage = (message) => heard(port, message.data);
  port.start();
});
