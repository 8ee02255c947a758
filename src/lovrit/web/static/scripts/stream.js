// What the server says to this page, over the one stream that all pages of a browser share.

const HERE_MS = 10_000;

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

/** A stream of the page's own: where a browser has no shared workers, or the address is one person's.
 * @param {string} channel @param {Record<string, (data: string) => void>} hears @param {string} [url] */
export function alone(channel, hears, url = `/stream?on=${channel}`) {
  const events = new EventSource(url);
  events.addEventListener("said", (event) => {
    const said = JSON.parse(event.data);
    hears[said.event]?.(said.data);
  });
  events.onopen = () => hears.back?.("");
  events.onerror = () => hears.away?.("");
  window.addEventListener("pagehide", () => events.close());
  window.addEventListener("pageshow", (event) => { if (event.persisted) alone(channel, hears, url); });
}
