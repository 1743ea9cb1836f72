// Reads a calendar with ical.js, a library that knows nothing of ours, and writes down what it found. For the tests.
import { readFileSync } from "node:fs";
import ICAL from "ical.js";

const calendar = new ICAL.Component(ICAL.parse(readFileSync(0, "utf8")));
const found = calendar.getAllSubcomponents("vevent").map((component) => {
  const event = new ICAL.Event(component);
  return {
    uid: event.uid,
    sequence: event.sequence,
    title: event.summary,
    where: event.location ?? "",
    start: event.startDate.toJSDate().toISOString(),
    end: event.endDate.toJSDate().toISOString(),
    status: component.getFirstPropertyValue("status"),
    invited: event.attendees.map((attendee) => attendee.getFirstValue()),
  };
});
console.log(JSON.stringify({ method: calendar.getFirstPropertyValue("method"), entries: found }));
