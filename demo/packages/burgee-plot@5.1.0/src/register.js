// Registers every mark, so that a plot can name them in its description.
import { register } from "./registry.js";
import { line } from "./marks/line.js";
import { area } from "./marks/area.js";
import { bar } from "./marks/bar.js";
import { dot } from "./marks/dot.js";
import { arc } from "./marks/arc.js";
import { rule } from "./marks/rule.js";
import { label } from "./marks/label.js";
import { heat } from "./marks/heat.js";
import { rose } from "./marks/rose.js";
import { chart } from "./marks/chart.js";
for (const [name, mark] of Object.entries({ line, area, bar, dot, arc, rule, label, heat, rose, chart })) {
  register(name, mark);
}
