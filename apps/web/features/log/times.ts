import { ago, longDayClock, shortDay } from "../../ui/dates";

export const dayText = (iso: string): string => shortDay(new Date(iso));
export const longDayText = (iso: string): string => longDayClock(new Date(iso));
export const agoText = (iso: string): string => ago(new Date(iso));
