import { createServer } from "node:http";
// .site/after/src/shared/ports.js
var ports = {
	kelpwick: {
		name: "Kelpwick",
		zone: 1,
		at: [-4.812, 57.301],
		sill: 1.1
	},
	"saint-orme": {
		name: "Saint Orme",
		zone: 2,
		at: [-4.951, 57.388],
		sill: .6
	},
	"gull-holm": {
		name: "Gull Holm",
		zone: 2,
		at: [-5.108, 57.342],
		sill: .9
	},
	tarnsey: {
		name: "Tarnsey",
		zone: 3,
		at: [-5.231, 57.419],
		sill: 1.4
	},
	"north-skerry": {
		name: "North Skerry",
		zone: 4,
		at: [-5.377, 57.512],
		sill: .4
	}
};
Object.keys(ports);
// .site/after/src/shared/fares.js
var BASE = {
	adult: 1250,
	child: 625,
	islander: 480,
	dog: 300
};
var VEHICLES = {
	bicycle: 400,
	motorcycle: 1900,
	car: 3400,
	van: 5200,
	trailer: 4100
};
function fare({ passengers, vehicle, from, to, offPeak }) {
	const zones = Math.abs(ports[from].zone - ports[to].zone) + 1;
	let cents = 0;
	for (const [kind, count] of Object.entries(passengers)) cents += (BASE[kind] ?? BASE.adult) * count;
	if (vehicle) cents += VEHICLES[vehicle];
	cents = Math.round(cents * (.7 + .3 * zones));
	return offPeak ? Math.round(cents * .8 / 10) * 10 : cents;
}
// .site/after/server/main.js
createServer((request, response) => {
	const asked = Object.fromEntries(new URL(request.url, "http://localhost").searchParams);
	response.setHeader("content-type", "application/json");
	response.end(JSON.stringify({ cents: fare({
		passengers: { adult: 1 },
		...asked
	}) }));
}).listen(8080);
export {};

//# sourceMappingURL=main.js.map