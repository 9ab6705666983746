// Modules of which some names are used and others are not, in ways that could mislead: each is imported
// as an object, which bundlers keep whole. What is called `dead…` is used by nobody, what is called
// `live…` is used in the way that the pattern is named after.

const two = "export const liveA = () => 'a'; export const deadB = () => 'b';";
const all = "export const liveA = () => 'a'; export const liveB = () => 'b';";

export const patterns = {
  "static read": [two, "say(ns.liveA())"],
  "optional chain": [two, "say(ns?.liveA?.())"],
  "computed read": [all, "for (const k of ['liveA', 'liveB']) say(ns[k]())"],
  "computed read of a text": [all, "say(ns['live' + key]())"],
  "alias": [all, "const q = ns; say(q.liveA() + q.liveB())"],
  "destructuring": [all, "const { liveA, ...rest } = ns; say(liveA() + rest.liveB())"],
  "spread": [all, "const o = { ...ns }; say(o.liveB())"],
  "argument": [all, "say(Object.keys(ns).sort().join())"],
  "in": [all, "say('liveB' in ns)"],
  "for in": [all, "for (const k in ns) say(k)"],
  "comparison": [all, "say([ns].map((m) => m.liveB()).join())"],
  "default value": [all, "const f = (m = ns) => m.liveB(); say(f())"],
  "this of a call": ["export function liveA() { return this.liveB(); } export const liveB = () => 'b';", "say(ns.liveA())"],
  "this of a call, not looked at": ["export function liveA() { return function () { return typeof this; }; } export const deadB = 1;", "say(typeof ns.liveA())"],
  "tagged template": ["export function liveA(t) { return t[0] + this.liveB; } export const liveB = 'b';", "const q = [ns]; say(q[0].liveA`x`)"],
  "chain of functions": ["function liveInner() { return 'i'; } export const liveA = () => liveInner(); function deadInner() { return deadOther(); } function deadOther() { return deadInner(); } export const deadB = () => deadInner();", "say(ns.liveA())"],
  "class": ["export class liveA { m() { return 'm'; } } export class deadB { m() { return new deadB(); } }", "say(new ns.liveA().m())"],
  "class with a static block": ["export const liveA = []; export class LiveB { static { liveA.push('block'); } }", "say(ns.liveA.join())"],
  "class with a static call": ["export const liveA = []; const livePush = (x) => liveA.push(x); export class LiveB { static n = livePush('field'); }", "say(ns.liveA.join())"],
  "class with a static value": ["export const liveA = 1; export class deadB { static n = 2; static m = () => deadB.n; }", "say(ns.liveA)"],
  "superclass": ["class liveBase { b() { return 'base'; } } export class liveA extends liveBase {} export class deadB extends liveBase { b() { return 'dead'; } }", "say(new ns.liveA().b())"],
  "prototype": ["export function liveA() {} liveA.prototype.m = function () { return liveHelp(); }; const liveHelp = () => 'h'; export function deadB() {} deadB.prototype.m = function () { return deadHelp(); }; const deadHelp = () => 'd';", "say(new ns.liveA().m())"],
  "property of a function": ["export const liveA = () => liveA.x; liveA.x = 'x'; export const deadB = () => deadB.x; deadB.x = 'y';", "say(ns.liveA())"],
  "setter of a class": ["export const liveA = []; export class LiveB { static set x(v) { liveA.push(v); } } LiveB.x = 'set';", "say(ns.liveA.join())"],
  "setter of a superclass": ["export const liveA = []; class LiveBase { static set x(v) { liveA.push(v); } } export class LiveB extends LiveBase {} LiveB.x = 'set';", "say(ns.liveA.join())"],
  "setter of an object": ["export const liveA = []; export const liveB = { set x(v) { liveA.push(v); } }; liveB.x = 'set';", "say(ns.liveA.join())"],
  "prototype of an object": ["export const liveA = []; export const liveB = { __proto__: { set x(v) { liveA.push(v); } } }; liveB.x = 'set';", "say(ns.liveA.join())"],
  "property with an effect": ["export const liveA = []; export const LiveB = () => 1; LiveB.x = liveA.push('ran');", "say(ns.liveA.join())"],
  "defineProperty": ["export const liveA = 1; export function deadB() {} Object.defineProperty(deadB, 'x', { value: 2 });", "say(ns.liveA)"],
  "frozen": ["export const liveA = Object.freeze({ a: 1 }); export const deadB = Object.freeze({ b: [1, 2] });", "say(ns.liveA.a)"],
  "call": ["export const liveA = []; const liveRun = () => liveA.push('ran'); export const liveB = liveRun();", "say(ns.liveA.join())"],
  "getter that is read": ["export const liveA = []; const liveO = { get x() { liveA.push('got'); return 1; } }; export const liveB = liveO.x;", "say(ns.liveA.join())"],
  "spread of a getter": ["export const liveA = []; export const liveB = { ...{ get x() { liveA.push('got'); return 1; } } };", "say(ns.liveA.join())"],
  "conversion": ["export const liveA = []; const liveO = { toString() { liveA.push('text'); return ''; } }; export const liveB = `${liveO}`;", "say(ns.liveA.join())"],
  "sum": ["export const liveA = []; const liveO = { valueOf() { liveA.push('value'); return 1; } }; export const liveB = liveO + 1;", "say(ns.liveA.join())"],
  "key": ["export const liveA = []; const liveO = { toString() { liveA.push('key'); return 'k'; } }; export const liveB = { [liveO]: 1 };", "say(ns.liveA.join())"],
  "iterator": ["export const liveA = []; const liveO = { *[Symbol.iterator]() { liveA.push('step'); yield 1; } }; export const liveB = [...liveO];", "say(ns.liveA.join())"],
  "constructor": ["export const liveA = []; class liveK { constructor() { liveA.push('new'); } } export const liveB = new liveK();", "say(ns.liveA.join())"],
  "constructor of the language": ["export const liveA = 1; export const deadB = new Map(); export const deadC = new Set(['x']);", "say(ns.liveA)"],
  "map of a list": ["export const liveA = []; const liveO = { *[Symbol.iterator]() { liveA.push('step'); yield [1, 2]; } }; export const liveB = new Map(liveO);", "say(ns.liveA.join())"],
  "assignment in a value": ["let liveN = 0; export const liveA = () => liveN; export const liveB = (liveN = 3);", "say(ns.liveA())"],
  "mutated": ["export let liveN = 0; export const liveA = () => ++liveN; export let deadN = 0; export const deadB = () => ++deadN;", "say(ns.liveA() + ns.liveN)"],
  "reassigned function": ["export function liveA() { return 'old'; } const liveNew = () => 'new'; liveA = liveNew;", "say(ns.liveA())"],
  "self-replacing function": ["export function liveA() { liveA = () => 'second'; return 'first'; } export const deadB = 1;", "say(ns.liveA() + ns.liveA())"],
  "enum": ["export var liveA; (function (e) { e[(e.X = 0)] = 'X'; })(liveA || (liveA = {})); export var deadB; (function (e) { e[(e.Y = 0)] = 'Y'; })(deadB || (deadB = {}));", "say(ns.liveA[0])"],
  "enum with an effect": ["export const liveA = []; export var liveB; (function (e) { e.X = liveA.push('ran'); })(liveB || (liveB = {}));", "say(ns.liveA.join())"],
  "symbol": ["export const liveA = Symbol('a'); export const deadB = Symbol('b'); export const deadC = { [Symbol.iterator]() { return 1; } };", "say(String(ns.liveA))"],
  "generator": ["export function* liveA() { yield 1; } export function* deadB() { yield* deadB(); }", "say([...ns.liveA()].join())"],
  "async": ["export async function liveA() { return 1; } export async function deadB() { return await deadB(); }", "say(typeof ns.liveA())"],
  "private names": ["export class liveA { #x = 1; get x() { return this.#x; } } export class deadB { #y = 2; static has(o) { return #y in o; } }", "say(new ns.liveA().x)"],
  "type of a member": ["export const liveA = 1; export const liveB = 2; export const deadC = 3;", "say(typeof ns.liveA + typeof ns.liveB)"],
  "passed on": [all, "queue.push(((m) => () => say([m, m].map((n) => n.liveB() + n.liveA()).join()))(ns))"],
  "kept for later": [two, "queue.push(() => ns.liveA())"],
  "in a template": [two, "say(`${ns.liveA()}`)"],
  "returned": [all, "const get = () => ns; say(Object.values(get()).length)"],
  "conditional": [all, "say((key ? ns : null).liveB())"],
  "bound": [all, "say(ns.liveA.call(ns) + Reflect.get(ns, 'liveB')())"],
  "pure comment": ["const livePlain = (x) => () => x; export const liveA = /* @__PURE__ */ livePlain('a'); export const deadB = /* @__PURE__ */ livePlain('b');", "say(ns.liveA())"],
  "pure comment with an effect": ["export const liveA = []; const livePlain = (x) => x; export const liveB = /* @__PURE__ */ livePlain(liveA.push('arg'));", "say(ns.liveA.join())"],
  "global that is not there": ["export const liveA = 1; let liveE = ''; try { notThere; } catch (e) { liveE = e.name; } export const liveB = () => liveE;", "say(ns.liveA + ns.liveB())"],
  "default argument": ["const liveD = () => 'd'; export const liveA = (x = liveD()) => x; const deadD = () => 'e'; export const deadB = (x = deadD()) => x;", "say(ns.liveA())"],
  "odd names": ["const liveA = 1; const deadB = 2; export { liveA as 'a b', deadB as 'c d' };", "say(ns['a b'])"],
};

/** Writes the patterns into a folder, as modules that a bundler can read. */
export function write(folder, { mkdirSync, writeFileSync }) {
  mkdirSync(folder, { recursive: true });
  const imports = [];
  const uses = [];
  Object.entries(patterns).forEach(([name, [module, use]], at) => {
    writeFileSync(`${folder}/p${at}.js`, `${module}\n`);
    writeFileSync(`${folder}/i${at}.js`, `export * as ns from "./p${at}.js";\n`);
    imports.push(`import { ns as n${at} } from "./i${at}.js";`);
    uses.push(`run(${JSON.stringify(name)}, (ns, say) => { ${use.replaceAll(/\bns\b/g, `n${at}`)} });`);
  });
  const main = `${imports.join("\n")}
const lines = [];
const queue = [];
const key = globalThis.none ? "" : "B";
function run(name, work) {
  try { work(null, (x) => lines.push(name + ": " + x)); } catch (error) { lines.push(name + " fails: " + error); }
}
${uses.join("\n")}
for (const work of queue) work();
console.log(lines.join("\\n"));
`;
  writeFileSync(`${folder}/main.js`, main);
}
