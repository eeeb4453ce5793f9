export { type Alternative, whatWouldHold } from './alternatives.js';
export {
  type Away,
  afterWorking,
  beforeWorking,
  type Calendar,
  clock,
  freeOn,
  hoursFrom,
  hoursText,
  isOpen,
  nextOpen,
  openOn,
  requireHours,
  type Span,
  type WeekHours,
} from './calendar.js';
export {
  type Course,
  type CourseWork,
  IMPRESSIONS,
  type Impression,
  impressionOf,
  MAKERS,
  type Maker,
  type OwnMinutes,
  TISSUE_WORK,
  type TissueWork,
} from './course.js';
export { type Day, dayOf, isoOf, weekdayOf } from './day.js';
export { chainTo, type Event, type Link, type Solved, type Stuck, solveDays } from './network.js';
export {
  type Ask,
  type Booked,
  type House,
  hasRoom,
  type PlannedVisit,
  planVisits,
  type VisitPlan,
} from './plan-visits.js';
export { type Reminder, remindersOf } from './reminders.js';
export { VISIT_KINDS, VISITS, type VisitKind } from './visit-words.js';
export {
  type Interval,
  intervalsOf,
  usualMinutes,
  type Visit,
  type VisitStep,
  visitOf,
  visitsOf,
} from './visits.js';
