// What scripts say by themselves, in the page's language: the server makes the texts, here their fields are filled.
import { texts } from "./texts.js";

const plural = new Intl.PluralRules(document.documentElement.lang || "en");

export const fill = (template, facts = {}) => template.replace(/\{(\w+)\}/g, (field, name) => (name in facts ? facts[name] : field));

// A text by its name. Where it counts, facts.count chooses between its singular and its plural.
export function say(name, facts = {}) {
  const text = texts[name];
  if (text === undefined) throw new Error(`no text is called ${name}`);
  return fill(typeof text === "string" ? text : text[plural.select(facts.count)] || text.other, facts);
}
