import { Emitter } from "./emitter.js";
export default function store(initial) {
  const emitter = new Emitter();
  let value = initial;
  let depth = 0;
  let pending = false;
  const announce = () => {
    if (depth > 0) pending = true;
    else emitter.emit("change", value);
  };
  return {
    get: () => value,
    set(next) {
      const after = typeof next === "function" ? next(value) : next;
      if (Object.is(after, value)) return;
      value = after;
      announce();
    },
    batch(work) {
      depth += 1;
      try {
        work();
      } finally {
        depth -= 1;
        if (depth === 0 && pending) {
          pending = false;
          announce();
        }
      }
    },
    subscribe: (handler, options) => emitter.on("change", handler, options),
  };
}
