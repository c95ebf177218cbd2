// Where a farm lies: the device's own place into the fields, at a press; or pointed at on a map.
import * as ask from "./lib/ask.js";
import * as place from "./lib/place.js";
import { say } from "./lib/say.js";
import { World } from "./lib/world.js";

const button = document.querySelector("[data-place]");
if (button) {
  const status = document.querySelector("[data-place-told]");
  const latitude = document.querySelector("[name=latitude]");
  const longitude = document.querySelector("[name=longitude]");
  place.offer(button, status, (coords) => {
    latitude.value = coords.latitude.toFixed(5);
    longitude.value = coords.longitude.toFixed(5);
  });

  const box = document.querySelector("[data-world]");
  const world = new World(box.querySelector("[data-map]"), (north, east, km, isNear) => {
    latitude.value = north.toFixed(2);
    longitude.value = east.toFixed(2);
    const kilometres = Math.max(1, Number(km.toPrecision(1)));
    status.textContent = isNear ? say("place_pointed", { kilometres }) : say("place_pointed_wide", { kilometres });
  });
  box.addEventListener("toggle", async () => {
    if (!box.open) return;
    // It stands before its lines are there: whoever moves the cross meanwhile moves it from the right place.
    world.stand(Number.parseFloat(latitude.value.replace(",", ".")), Number.parseFloat(longitude.value.replace(",", ".")));
    // The map is fetched when somebody wants it, not before.
    world.show(await ask.read(box.dataset.world));
  });
  box.querySelector("[data-nearer]").addEventListener("click", () => world.zoom(1 / 2));
  box.querySelector("[data-wider]").addEventListener("click", () => world.zoom(2));
}
