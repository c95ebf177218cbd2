// Ribbons: any day by click or keyboard, more as one scrolls, filters at once, the what-if strip, the progress of a reckoning.
(() => {
  const SOURCES = { m: "measured", f: "forecast", p: "drawn from past years", i: "filled in" };
  const MONTHS = ["January", "February", "March", "April", "May", "June", "July", "August", "September", "October", "November", "December"];
  const LEFT = 64, WIDTH = 860;
  // Parts of this site's own pages, where the browser asks for a name before text becomes elements.
  const own = window.trustedTypes ? trustedTypes.createPolicy("own-pages", { createHTML: (text) => text }) : { createHTML: (text) => text };

  function told(ribbon) {
    if (!ribbon.told) ribbon.told = JSON.parse(ribbon.querySelector("script").textContent);
    return ribbon.told;
  }

  function words(days, index) {
    const place = index - days.offset;
    if (!days.first) return ["", "Nothing is told of this day."];
    const date = new Date(days.first + "T12:00:00Z");
    date.setUTCDate(date.getUTCDate() + place);
    const name = date.getUTCDate() + " " + MONTHS[date.getUTCMonth()];
    if (place < 0 || place >= days.kinds.length) return [name, place < 0 ? "Before the biofix." : "After what is reckoned."];
    const shares = Object.entries(days.stages).map(([stage, row]) => [row[place], days.words[stage]]).filter(([share]) => share >= 1);
    shares.sort((one, two) => two[0] - one[0]);
    const out = shares.map(([share, stage]) => share + " % " + stage).join(", ") || "nobody about";
    const [low, middle, high] = days.heat.map((row) => row[place]);
    const range = high - low > 4 ? " (" + low + " to " + high + ")" : "";
    return [name, out + ". " + middle + range + " degree-days C, this day " + SOURCES[days.kinds[place]] + "."];
  }

  function show(ribbon, index) {
    const days = told(ribbon);
    index = Math.min(Math.max(index, 0), days.axis);
    const [name, what] = words(days, index);
    ribbon.setAttribute("aria-valuenow", index);
    ribbon.setAttribute("aria-valuetext", name + ": " + what);
    const cursor = ribbon.querySelector("[data-cursor]");
    cursor.setAttribute("visibility", "visible");
    const x = LEFT + (WIDTH * index) / days.axis;
    cursor.setAttribute("transform", "translate(" + x + " 0)");
    const at = (x / cursor.ownerSVGElement.viewBox.baseVal.width) * ribbon.scrollWidth - ribbon.scrollLeft;
    if (at < LEFT || at > ribbon.clientWidth) ribbon.scrollLeft += at - ribbon.clientWidth / 2;
    const line = ribbon.nextElementSibling;
    line.querySelector("[data-day]").textContent = name;
    line.querySelector("[data-what]").textContent = what;
  }

  document.addEventListener("click", (event) => {
    const ribbon = event.target.closest("[data-ribbon]");
    if (!ribbon) return;
    const svg = ribbon.querySelector("svg");
    const box = svg.getBoundingClientRect();
    const x = ((event.clientX - box.left) / box.width) * svg.viewBox.baseVal.width;
    show(ribbon, Math.round(((x - LEFT) / WIDTH) * told(ribbon).axis));
  });
  document.addEventListener("keydown", (event) => {
    const ribbon = event.target.closest("[data-ribbon]");
    if (!ribbon) return;
    const now = Number(ribbon.getAttribute("aria-valuenow"));
    const steps = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1, PageUp: 7, PageDown: -7 };
    const ends = { Home: 0, End: told(ribbon).axis };
    if (event.key in steps) show(ribbon, now + steps[event.key]);
    else if (event.key in ends) show(ribbon, ends[event.key]);
    else return;
    event.preventDefault();
  });

  // Where a ribbon is wider than the screen, today stands a third in, and the names of the lanes stay in view.
  const narrow = matchMedia("(max-width: 700px)");
  function settle(root) {
    if (!narrow.matches) return;
    for (const ribbon of root.querySelectorAll("[data-ribbon]:not([data-settled])")) {
      ribbon.dataset.settled = "";
      const svg = ribbon.querySelector("svg");
      const today = LEFT + (WIDTH * Number(ribbon.getAttribute("aria-valuenow"))) / Number(ribbon.getAttribute("aria-valuemax"));
      ribbon.scrollLeft = (today / svg.viewBox.baseVal.width) * ribbon.scrollWidth - ribbon.clientWidth / 3;
    }
  }
  function keepNames(ribbon) {
    const names = ribbon.querySelector("[data-names]");
    const width = names.ownerSVGElement.viewBox.baseVal.width;
    names.setAttribute("transform", "translate(" + (ribbon.scrollLeft / ribbon.scrollWidth) * width + " 0)");
  }
  document.addEventListener("scroll", (event) => event.target.matches?.("[data-ribbon]") && keepNames(event.target), { capture: true, passive: true });
  settle(document);

  // More ribbons when the end of the list comes near.
  const list = document.querySelector("[data-ribbons]");
  const near = list && "IntersectionObserver" in window ? new IntersectionObserver(load, { rootMargin: "600px" }) : null;
  async function load(entries) {
    for (const { isIntersecting, target } of entries) {
      if (!isIntersecting || target.loading) continue;
      target.loading = true;
      near.unobserve(target);
      try {
        const answer = await fetch(target.querySelector("a").href, { headers: { Accept: "text/html" } });
        if (!answer.ok) throw new Error(answer.status);
        const more = document.createElement("template");
        more.innerHTML = own.createHTML(await answer.text());
        target.replaceWith(more.content);
        settle(list);
        watch();
      } catch (error) {
        target.loading = false;
        target.querySelector("a").textContent = "The next ones did not come: try again";
      }
    }
  }
  function watch() {
    for (const more of list.querySelectorAll("[data-more]")) near.observe(more);
  }
  if (near) {
    watch();
    list.addEventListener("click", (event) => {
      const more = event.target.closest("[data-more]");
      if (!more) return;
      event.preventDefault();
      load([{ isIntersecting: true, target: more }]);
    });
  }

  const filters = document.querySelector("[data-filters]");
  if (filters) {
    filters.querySelector("[data-apply]").hidden = true;
    filters.addEventListener("change", () => filters.submit());
  }

  const progress = document.querySelector("[data-progress]");
  if (progress) {
    const ask = async () => {
      try {
        const answer = await fetch(progress.dataset.progress);
        const state = await answer.json();
        progress.querySelector("[data-done]").textContent = state.done;
        if (state.finished) return location.reload();
      } catch (error) {
        /* Asked again below. */
      }
      setTimeout(ask, 1500);
    };
    setTimeout(ask, 1500);
  }

  // What if it were warmer, or the biofix earlier: late answers are dropped.
  const strip = document.querySelector("[data-whatif]");
  if (strip) {
    const warmer = strip.querySelector("[name=warmer]"), later = strip.querySelector("[name=later]");
    const figure = document.querySelector("[data-whatif-figure]"), answerBox = document.querySelector("[data-whatif-answer]");
    const newest = Ask.newest();
    const say = () => {
      const degrees = Number(warmer.value), days = Number(later.value);
      strip.querySelector("[data-warmer]").textContent = degrees ? Math.abs(degrees) + " °C " + (degrees > 0 ? "warmer" : "cooler") : "as foretold";
      strip.querySelector("[data-later]").textContent = days ? Math.abs(days) + (Math.abs(days) === 1 ? " day " : " days ") + (days > 0 ? "later" : "earlier") : "as set";
    };
    const draw = (found) => {
      answerBox.textContent = found.text;
      if (!found.svg) return;
      figure.querySelector("svg").outerHTML = own.createHTML(found.svg);
      keepNames(figure);
      figure.told = found.days;
      show(figure, Number(figure.getAttribute("aria-valuenow")));
    };
    const ask = async () => {
      say();
      const address = strip.dataset.whatif + "?warmer=" + warmer.value + "&later=" + later.value;
      try {
        await newest(async () => (await fetch(address)).json(), draw);
      } catch (error) {
        answerBox.textContent = "No answer: the connection is gone. Move it again.";
      }
    };
    strip.addEventListener("input", ask);
    strip.querySelector("[data-back]").addEventListener("click", () => {
      warmer.value = later.value = 0;
      ask();
    });
  }
})();
