const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
export function retrying(work, times) {
  return async function (...args) {
    for (let attempt = 0; ; attempt++) {
      try {
        return await work(...args);
      } catch (error) {
        if (attempt >= times || error.isClient || error.name === "AbortError") throw error;
        await pause(200 * 2 ** attempt * (0.5 + Math.random()));
      }
    }
  };
}
