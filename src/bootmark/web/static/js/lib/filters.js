// Filters take hold as they are chosen: the button for browsers without scripts goes.
for (const filters of document.querySelectorAll("[data-filters]")) {
  filters.querySelector("[data-apply]").hidden = true;
  filters.addEventListener("change", () => filters.submit());
}
