export const ports = {
  kelpwick: { name: "Kelpwick", zone: 1, at: [-4.812, 57.301], sill: 1.1 },
  "saint-orme": { name: "Saint Orme", zone: 2, at: [-4.951, 57.388], sill: 0.6 },
  "gull-holm": { name: "Gull Holm", zone: 2, at: [-5.108, 57.342], sill: 0.9 },
  tarnsey: { name: "Tarnsey", zone: 3, at: [-5.231, 57.419], sill: 1.4 },
  "north-skerry": { name: "North Skerry", zone: 4, at: [-5.377, 57.512], sill: 0.4 },
};
export const portNames = Object.keys(ports);
export const portName = (id) => ports[id]?.name ?? id;
