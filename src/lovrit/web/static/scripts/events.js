// Made by `make events` from the kinds of event in core/run/events: not written by hand.

/**
 * @typedef {"start" | "hold" | "resume" | "next" | "back" | "again" | "longer" | "skip-round" | "skip-block" | "drop-round" | "replace" | "stops" | "why" | "returns" | "joins" | "moves" | "done" | "in" | "round" | "change" | "heart" | "mark" | "plan" | "due" | "undo" | "end" | "goes-on" | "felt" | "score" | "note" | "jump" | "broke" | "swap" | "show" | "absent" | "changed"} EventKind
 * @typedef {{id: string, kind: EventKind, at_ms: number, place?: string, seconds?: number | null, every?: boolean, person?: number | null, block?: number | null, value?: number | null, text?: string, why?: string, group?: string, lane?: string, station?: string, move?: string, way?: string, of?: string, bpm?: number | null, due_ms?: number | null, by?: string, to?: string, other?: number | null, what?: string}} Press
 */

export const PLACED = new Set(["next", "back", "again", "longer"]);
export const GO_ON_MS = 60000;
