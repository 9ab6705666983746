import { check, form } from "halyard-forms";
import { clearance, loadStation } from "tidecalc";
import { portName, portNames, ports } from "../shared/ports.js";
import { messages } from "./form-messages.js";
import { change, trip } from "./trip.js";
const options = portNames.map((value) => ({ value, label: portName(value) }));
/** The small boat cannot enter every harbour at low water. */
function reachable(port, day) {
  try {
    return clearance(loadStation(port), { sill: ports[port].sill, draught: 1.8 }, Date.parse(day)) !== null;
  } catch {
    return true;
  }
}
export function crossingStep(next) {
  const today = () => new Date().setHours(0, 0, 0, 0);
  const { element } = form(
    {
      from: { label: "From", type: "select", options, value: trip.get().from },
      to: { label: "To", type: "select", options, value: trip.get().to, checks: [(to, { from }) => (to === from ? { code: "required" } : null)] },
      day: { label: "Day", type: "date", checks: [check.required(), check.date({ after: today }), (day, { to }) => (reachable(to ?? "kelpwick", day) ? null : { code: "date" })] },
    },
    { messages, onSubmit: async (values) => (change({ ...values, offPeak: new Date(values.day).getDay() % 6 !== 0 }), next()) },
  );
  return element;
}
