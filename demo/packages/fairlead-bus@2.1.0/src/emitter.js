export class Emitter {
  #handlers = new Map();
  on(name, handler, { signal } = {}) {
    if (!this.#handlers.has(name)) this.#handlers.set(name, new Set());
    this.#handlers.get(name).add(handler);
    const off = () => this.#handlers.get(name)?.delete(handler);
    signal?.addEventListener("abort", off, { once: true });
    return off;
  }
  emit(name, ...args) {
    for (const handler of [...(this.#handlers.get(name) ?? [])]) {
      try {
        handler(...args);
      } catch (error) {
        queueMicrotask(() => {
          throw error;
        });
      }
    }
  }
  get size() {
    let size = 0;
    for (const set of this.#handlers.values()) size += set.size;
    return size;
  }
}
