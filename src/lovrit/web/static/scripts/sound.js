// Sound cues: three short before work, one long at its start, one at half, one at ten seconds, a low one at its end.

/** @typedef {{intervals: {phase: string, seconds: number, beat: number | null}[]}} Plan */

export class Sound {
  constructor() {
    this.on = false;
    /** @type {AudioContext | null} */
    this.context = null;
    this.last = "";
  }

  toggle() {
    this.on = !this.on;
    if (this.on) this.wake();
    return this.on;
  }

  /** Browsers let a page sound only after a hand has touched it. */
  wake() {
    this.context ??= new AudioContext();
    this.context.resume();
  }

  /**
   * Cue what this moment asks for, once.
   * @param {Plan} plan @param {number} interval @param {number} place ms into the interval @param {number[]} lengths
   */
  at(plan, interval, place, lengths) {
    const cue = cueAt(plan, interval, place, lengths);
    const key = cue ? `${interval} ${cue}` : "";
    if (!cue || key === this.last) return;
    this.last = key;
    if (this.on) this.play(cue);
  }

  /** @param {string} cue */
  play(cue) {
    const tones = /** @type {Record<string, [number, number]>} */ ({
      work: [880, 0.55], rest: [330, 0.45], half: [660, 0.12], ten: [587, 0.25], beat: [1200, 0.03],
    });
    const [pitch, length] = tones[cue] ?? [740, 0.1];
    if (!this.context) return;
    const from = this.context.currentTime;
    const tone = this.context.createOscillator();
    const gain = this.context.createGain();
    tone.frequency.value = pitch;
    gain.gain.setValueAtTime(0.28, from);
    gain.gain.exponentialRampToValueAtTime(0.001, from + length);
    tone.connect(gain).connect(this.context.destination);
    tone.start(from);
    tone.stop(from + length);
  }
}

/**
 * @param {Plan} plan @param {number} interval @param {number} place @param {number[]} lengths
 * @returns {string} the cue of this tenth of a second, or nothing
 */
export function cueAt(plan, interval, place, lengths) {
  const one = plan.intervals[interval];
  const next = plan.intervals[interval + 1];
  const left = lengths[interval] - place;
  if (place < 0) return place > -3000 ? `count-${Math.ceil(-place / 1000)}` : "";
  if (place < 250) return one.phase === "work" ? "work" : "rest";
  if (next?.phase === "work" && one.phase !== "work" && left <= 3000) return `count-${Math.ceil(left / 1000)}`;
  if (one.phase !== "work") return "";
  if (one.beat) return Math.floor((place / 60_000) * one.beat) % 2 ? "beat" : "beat ";
  if (one.seconds >= 30 && left <= 10_000 && left > 9700) return "ten";
  if (one.seconds >= 30 && Math.abs(left - lengths[interval] / 2) < 150) return "half";
  return left <= 3000 ? `count-${Math.ceil(left / 1000)}` : "";
}
