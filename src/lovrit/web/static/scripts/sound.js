// Sound: the cues that the server made, played ahead on the audio clock, so that a busy page delays none of them.

/** @typedef {import("./foretold.js").Cue} Cue */

export const AHEAD_MS = 1500;
/** So late a cue still means something. */
const LATE_MS = 60;
/** Two cues of a kind are the same one where they are this near: what the server says anew differs by its rounding. */
const SAME_MS = 40;
const KEPT_S = 5;
const LOUD = 0.28;

/** @typedef {Record<string, [number, number, number][]>} Tones by kind: seconds from the cue, seconds long, Hz */

export class Sound {
  /** @param {Tones} tones the same as those of the cue track */
  constructor(tones) {
    this.tones = tones;
    this.on = false;
    this.voice = false;
    /** Whether it is said where each group goes. */
    this.where = false;
    /** @type {AudioContext | null} */
    this.context = null;
    /** What has been planned and not long gone: when it is due, on the server's clock (ms) and on the audio clock (s).
     * @type {{at: number, kind: string, from: number, nodes: OscillatorNode[]}[]} */
    this.planned = [];
    this.spoken = "";
    /** Told where it begins or ceases to be heard. */
    this.changed = () => {};
  }

  /** Browsers let a page sound only after a hand has touched it. */
  wake() {
    if (!this.context) {
      this.context = new AudioContext();
      this.context.onstatechange = () => this.changed();
    }
    this.context.resume();
  }

  /** Whether it is on and can be heard: a page that was opened anew waits for a hand. */
  get heard() {
    return this.on && this.context?.state === "running";
  }

  /** On or off; one that is on and waits for a hand is heard from now on. @returns {boolean} whether it is on */
  toggle() {
    this.on = !this.on || !this.heard;
    if (this.on) this.wake();
    else this.quiet();
    return this.on;
  }

  /** Take back what has been planned and not yet sounds, nor is about to: all, or what is no longer to come.
   * @param {(one: {at: number, kind: string}) => boolean} gone */
  quiet(gone = () => true) {
    const now = this.context?.currentTime ?? 0;
    const taken = this.planned.filter((one) => one.from > now + SAME_MS / 1000 && gone(one));
    for (const { nodes } of taken) for (const node of nodes) node.stop();
    this.planned = this.planned.filter((one) => !taken.includes(one) && one.from > now - KEPT_S);
  }

  /**
   * Plan the cues of the next second and a half; called often, each cue is planned once, and what is no longer among them is taken back.
   * @param {Cue[]} cues of what goes on now and of what begins within `AHEAD_MS` @param {number} now ms, by the clock that the cues go by
   */
  plan(cues, now) {
    const coming = cues.filter(([at]) => at - now >= -LATE_MS && at - now <= AHEAD_MS);
    const due = coming.find(([at, kind, say]) => say && at - now <= LATE_MS && (kind === "where" ? this.where : this.voice));
    if (due) this.speak(`${due[0]}`, due[2] ?? "");
    if (!this.on || !this.context) return;
    this.quiet((one) => !coming.some((cue) => same(one, cue)));
    for (const cue of coming) if (!this.planned.some((one) => same(one, cue))) this.add(cue, now, this.context);
  }

  /** @param {Cue} cue @param {number} now ms @param {AudioContext} context */
  add([at, kind], now, context) {
    const from = Math.max(context.currentTime, heardAt(context) + (at - now) / 1000);
    this.planned.push({ at, kind, from, nodes: sounded(context, this.tones[kind] ?? [], from) });
  }

  /** @param {string} key @param {string} say */
  speak(key, say) {
    if (this.spoken === key || !("speechSynthesis" in window)) return;
    this.spoken = key;
    speechSynthesis.cancel();
    speechSynthesis.speak(new SpeechSynthesisUtterance(say));
  }
}

/** @param {{at: number, kind: string}} planned @param {Cue} cue */
const same = (planned, [at, kind]) => planned.kind === kind && Math.abs(planned.at - at) < SAME_MS;

/**
 * What the audio clock reads for the sound that is heard now. `currentTime` goes in steps of what is made at once, some ten ms, so it is
 * asked for only where a browser does not tell what comes out. @param {AudioContext} context @returns {number} seconds
 */
function heardAt(context) {
  const { contextTime, performanceTime } = context.getOutputTimestamp?.() ?? {};
  if (!contextTime || !performanceTime) return context.currentTime;
  return contextTime + (performance.now() - performanceTime) / 1000;
}

/**
 * A cue on an audio clock. @param {BaseAudioContext} context @param {[number, number, number][]} tones @param {number} from seconds
 * @returns {OscillatorNode[]}
 */
export function sounded(context, tones, from) {
  return tones.map(([after, seconds, pitch]) => {
    const node = context.createOscillator();
    const gain = context.createGain();
    node.frequency.value = pitch;
    gain.gain.setValueAtTime(LOUD, from + after);
    gain.gain.exponentialRampToValueAtTime(0.001, from + after + seconds);
    node.connect(gain).connect(context.destination);
    node.start(from + after);
    node.stop(from + after + seconds);
    return node;
  });
}
