// The world to tap a farm's place on: land and borders of Natural Earth (public domain), a degree a unit, north up.
import { readFileSync, writeFileSync } from "node:fs";
import { feature, mesh } from "topojson-client";

const world = JSON.parse(readFileSync("node_modules/world-atlas/countries-50m.json"));
const STEP = 0.1;
const LEAST = 0.04; // square degrees of an island that is drawn

const rounded = (line) => {
  const points = line.map(([x, y]) => [Math.round(x / STEP), Math.round(-y / STEP)]);
  return points.filter(([x, y], place) => !place || x !== points[place - 1][0] || y !== points[place - 1][1]);
};
const path = (line) => {
  let [x, y] = line[0];
  const steps = line.slice(1).map(([nextX, nextY]) => {
    const step = `${nextX - x} ${nextY - y}`;
    [x, y] = [nextX, nextY];
    return step;
  });
  return `M${line[0].join(" ")}l${steps.join(" ")}`.replaceAll(" -", "-");
};
const area = (line) => Math.abs(line.reduce((sum, [x, y], place) => {
  const [nextX, nextY] = line[(place + 1) % line.length];
  return sum + x * nextY - nextX * y;
}, 0)) / 2;

const rings = feature(world, world.objects.land).features.flatMap(({ geometry }) =>
  geometry.type === "Polygon" ? geometry.coordinates : geometry.coordinates.flat());
const land = rings.filter((ring) => area(ring) > LEAST).map(rounded).filter((line) => line.length > 3).map((line) => path(line) + "Z").join("");
const borders = mesh(world, world.objects.countries, (one, other) => one !== other).coordinates
  .map(rounded).filter((line) => line.length > 1).map(path).join("");
writeFileSync(process.argv[2], JSON.stringify({ land, borders }) + "\n");
