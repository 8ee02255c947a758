// Sound: the cues that the server made, played ahead on the audio clock, so that a busy page delays none of them.

/** @typedef {import("./foretold.js").Cue} Cue */

const AHEAD_MS = 1500;
const LOUD = 0.28;

/** @typedef {Record<string, [number, number, number][]>} Tones by kind: seconds from the cue, seconds long, Hz */

export class Sound {
  /** @param {Tones} tones the same as those of the cue track */
  constructor(tones) {
    this.tones = tones;
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
      this.planned.set(key, { from, nodes: sounded(this.context, this.tones[kind] ?? [], from) });
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
