export function every(ms, work) {
  let timer = null;
  const tick = () => {
    work(new Date());
    timer = setTimeout(tick, ms - (Date.now() % ms));
  };
  document.addEventListener("visibilitychange", () => {
    clearTimeout(timer);
    if (document.visibilityState === "visible") tick();
  });
  tick();
  return () => clearTimeout(timer);
}
