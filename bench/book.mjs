import { FIRST_CLINIC } from '@radiant/contract';
import { takenBy } from '@radiant/contract/course';
import { dayOf, isoOf, planVisits, weekdayOf, whatWouldHold } from '@radiant/core';
import { figure, medianMs } from './figure.mjs';

// Two thousand visits of other cases over a year, in three chairs, and a case with every kind of visit.
const clinic = { ...FIRST_CLINIC, chairs: ['a', 'b', 'c'] };
const today = dayOf('2026-11-30');
const others = Array.from({ length: 2000 }, (_, i) => ({
  caseId: String(i),
  caseName: String(i),
  kind: 'seating',
  day: isoOf(today + ((i * 7) % 365)),
  from: 480 + 15 * (i % 24),
  minutes: 90,
  chair: clinic.chairs[i % 3],
})).filter((b) => weekdayOf(dayOf(b.day)) < 5);
const away = [];
const course = {
  teeth: [13, 12, 11, 21, 22, 23].map((tooth) => ({ tooth, work: 'veneer' })),
  hasRecords: false,
  mockUpDays: 3,
  tissue: 'gum',
  impression: 'healed',
  maker: 'laboratory',
  laboratoryDays: 10,
  tryIn: true,
  bleaching: true,
  guard: true,
};
const askOf = () => ({
  course,
  house: {
    clinic: { hours: clinic.hours, away },
    laboratory: { hours: clinic.laboratoryWeek.map((weekday) => ({ weekday, from: 0, to: 1440 })), away },
    chairs: 3,
    taken: takenBy(others, clinic),
  },
  patientAway: away,
  today,
  by: today + 40,
  booked: [{ kind: 'preparation', day: today + 28 }],
});

const ask = askOf();
const drag = medianMs(() => planVisits(ask), { warm: 5, runs: 31 });
figure('visits-after-a-drag', drag, 'ms', 'limit:20ms', 20 / drag);
const practice = medianMs(() => planVisits(askOf()), { warm: 3, runs: 15 });
figure('visits-with-2000-booked', practice, 'ms', 'limit:200ms', 200 / practice);
const ways = medianMs(() => whatWouldHold(ask), { warm: 2, runs: 9 });
figure('what-would-hold', ways, 'ms', 'limit:200ms', 200 / ways);
