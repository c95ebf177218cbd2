// Before anything is painted: the sun mode that this device was left in.
try {
  if (localStorage.getItem("sun") === "1") document.documentElement.classList.add("sun");
} catch (error) {
  /* A browser that keeps nothing starts in paper mode. */
}
