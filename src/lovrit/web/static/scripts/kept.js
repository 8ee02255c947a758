// What a browser keeps for a page from one opening to the next; one that keeps nothing does without.

/** @param {string} name @returns {any} */
export function recall(name) {
  try {
    return JSON.parse(localStorage.getItem(name) ?? "null");
  } catch {
    return null;
  }
}

/** @param {string} name @param {unknown} value */
export function remember(name, value) {
  try {
    localStorage.setItem(name, JSON.stringify(value));
  } catch {
    // a browser that keeps nothing runs it all the same
  }
}

/** @param {string} name */
export function forget(name) {
  try {
    localStorage.removeItem(name);
  } catch {
    // nothing was kept
  }
}
