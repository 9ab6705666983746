export const collect = (fields) => Object.fromEntries(fields.map(({ name, read }) => [name, read()]));
export async function submit(state, work) {
  if (state.get().busy) return;
  state.set((now) => ({ ...now, busy: true }));
  try {
    await work();
  } finally {
    state.set((now) => ({ ...now, busy: false }));
  }
}
