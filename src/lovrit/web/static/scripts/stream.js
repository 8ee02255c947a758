// What the server says to this page, over the one stream that all pages of a browser share.

const HERE_MS = 10_000;
const AGAIN_MS = 2000;

/**
 * Listen on a channel for as long as the page is shown.
 * @param {string} channel
 * @param {Record<string, (data: string) => void>} hears by event; "away" and "back" are the stream's own
 */
export function listenOn(channel, hears) {
  if (typeof SharedWorker === "undefined") return alone(channel, hears);
  const page = document.querySelector("script[type=module]"); // its address carries the build
  const assets = page instanceof HTMLScriptElement ? new URL(page.src).search : "";
  const worker = new SharedWorker(`/static/streams.js${assets}`, { type: "module" });
  const { port } = worker;
  const ask = () => port.postMessage({ on: [channel] });
  port.onmessage = ({ data }) => (data.event === "who" ? ask() : hears[data.event]?.(data.data));
  ask();
  setInterval(() => port.postMessage({ here: true }), HERE_MS);
  window.addEventListener("pagehide", () => port.postMessage({ leave: true }));
  window.addEventListener("pageshow", (event) => { if (event.persisted) ask(); });
  return undefined;
}

/** Refused, which a browser takes for the end: the link was ended, or whatever answers for the server was up before it.
 * @param {string} channel @param {Record<string, (data: string) => void>} hears @param {string} url */
async function again(channel, hears, url) {
  await new Promise((go) => { setTimeout(go, AGAIN_MS); });
  const page = await fetch(location.href, { method: "GET" }).catch(() => null);
  if (page?.status === 404) hears.ended?.("");
  else alone(channel, hears, url);
}

/** A stream of the page's own: where a browser has no shared workers, or the address is one person's.
 * @param {string} channel @param {Record<string, (data: string) => void>} hears @param {string} [url] */
export function alone(channel, hears, url = `/stream?on=${channel}`) {
  const events = new EventSource(url);
  events.addEventListener("said", (event) => {
    const said = JSON.parse(event.data);
    hears[said.event]?.(said.data);
  });
  events.onopen = () => hears.back?.("");
  events.onerror = () => {
    hears.away?.("");
    if (events.readyState === EventSource.CLOSED) again(channel, hears, url);
  };
  window.addEventListener("pagehide", () => events.close());
  window.addEventListener("pageshow", (event) => { if (event.persisted) alone(channel, hears, url); });
}
