const STEPS = [
  { hours: 72, share: 1, label: "more than three days before" },
  { hours: 24, share: 0.75, label: "one to three days before" },
  { hours: 4, share: 0.5, label: "on the day, four hours before" },
  { hours: 0, share: 0.1, label: "later" },
];
export function refundSteps({ vehicle, passengers, offPeak }) {
  const group = Object.values(passengers).reduce((a, b) => a + b, 0) >= 10;
  return STEPS.map((step) => ({ ...step, share: Math.max(0, step.share - (vehicle === "trailer" ? 0.1 : 0) - (group ? 0.15 : 0) - (offPeak ? 0.05 : 0)) }));
}
