import { format } from "date-fns/format";
import { formatDistanceToNowStrict } from "date-fns/formatDistanceToNowStrict";

export const dayText = (iso: string): string => format(new Date(iso), "d MMM");
export const longDayText = (iso: string): string => format(new Date(iso), "EEEE d MMMM, HH:mm");
export const agoText = (iso: string): string => `${formatDistanceToNowStrict(new Date(iso))} ago`;
