import "./timetable.css";
import { page } from "../shared/page.js";
import { homePort } from "../shared/store.js";
import { h } from "../shared/ui.js";
import { departures } from "./departures.js";
import { filters } from "./filters.js";
import { islandMap } from "./island-map.js";
import { noticeList } from "./notice-list.js";
import { tideStrip } from "./tide-strip.js";
const port = homePort.get();
const list = departures(port);
page(
  "timetable",
  noticeList(),
  filters({ port, onChange: list.show }),
  h("div", { class: "columns" }, list.element, h("aside", {}, tideStrip(port), islandMap(port))),
);
