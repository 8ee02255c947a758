// Sound: the cues that the server made, played ahead on the audio clock, so that a busy page delays none of them.

/** @typedef {import("./foretold.js").Cue} Cue */

const AHEAD_MS = 1500;

// kinds are told apart by how often and how long they sound, not by pitch alone
/** @type {Record<string, {pitch: number, seconds: number, times?: number, apart?: number, rough?: boolean}>} */
const TONES = {
  count: { pitch: 740, seconds: 0.1 },
  last: { pitch: 560, seconds: 0.08 },
  go: { pitch: 880, seconds: 0.7 },
  rest: { pitch: 330, seconds: 0.25, times: 2, apart: 0.3 },
  end: { pitch: 330, seconds: 0.4, times: 3, apart: 0.5 },
  half: { pitch: 660, seconds: 0.1, times: 2, apart: 0.16 },
  ten: { pitch: 590, seconds: 0.09, times: 3, apart: 0.14 },
  side: { pitch: 660, seconds: 0.12, times: 2, apart: 0.16, rough: true },
  part: { pitch: 990, seconds: 0.12, times: 2, apart: 0.16, rough: true },
  click: { pitch: 1300, seconds: 0.03 },
};

export class Sound {
  constructor() {
    this.on = false;
    this.voice = false;
    /** @type {AudioContext | null} */
    this.context = null;
    /** When each cue was planned on the audio clock, and what sounds there. @type {Map<string, {from: number, nodes: OscillatorNode[]}>} */
    this.planned = new Map();
    this.spoken = "";
  }

  /** Browsers let a page sound only after a hand has touched it. */
  wake() {
    this.context ??= new AudioContext();
    this.context.resume();
  }

  /** @returns {boolean} whether it sounds now */
  toggle() {
    this.on = !this.on;
    if (this.on) this.wake();
    else this.quiet();
    return this.on;
  }

  /** Take back what has been planned and not yet sounded: the class is no longer where it was. */
  quiet() {
    const now = this.context?.currentTime ?? 0;
    for (const { from, nodes } of this.planned.values()) if (from > now) for (const node of nodes) node.stop();
    this.planned.clear();
  }

  /**
   * Plan the cues of the next second and a half; called often, each cue is planned once.
   * @param {Cue[]} cues @param {number} now ms, by the clock that the cues go by
   */
  plan(cues, now) {
    for (const [at, kind, say] of cues) {
      const ahead = at - now;
      if (ahead < -60 || ahead > AHEAD_MS) continue;
      if (this.voice && say && ahead <= 60) this.speak(`${at}`, say);
      const key = `${at} ${kind}`;
      if (!this.on || !this.context || this.planned.has(key)) continue;
      const from = this.context.currentTime + Math.max(0, ahead) / 1000;
      this.planned.set(key, { from, nodes: sounded(this.context, this.context.destination, kind, from) });
    }
    if (this.planned.size > 300) for (const key of [...this.planned.keys()].slice(0, 200)) this.planned.delete(key);
  }

  /** @param {string} key @param {string} say */
  speak(key, say) {
    if (this.spoken === key || !("speechSynthesis" in window)) return;
    this.spoken = key;
    speechSynthesis.cancel();
    speechSynthesis.speak(new SpeechSynthesisUtterance(say));
  }
}

/**
 * A cue on an audio clock. @param {BaseAudioContext} context @param {AudioNode} into @param {string} kind @param {number} from seconds
 * @returns {OscillatorNode[]}
 */
export function sounded(context, into, kind, from) {
  const tone = TONES[kind];
  if (!tone) return [];
  return Array.from({ length: tone.times ?? 1 }, (_, nth) => {
    const begins = from + nth * (tone.apart ?? 0);
    const node = context.createOscillator();
    const gain = context.createGain();
    node.type = tone.rough ? "square" : "sine";
    node.frequency.value = tone.pitch;
    gain.gain.setValueAtTime(tone.rough ? 0.12 : 0.28, begins);
    gain.gain.exponentialRampToValueAtTime(0.001, begins + tone.seconds);
    node.connect(gain).connect(into);
    node.start(begins);
    node.stop(begins + tone.seconds);
    return node;
  });
}
