/** Monday to Friday, 9:00 to 17:30. */
export const USUAL_WEEK = [1, 2, 3, 4, 5].map((weekday) => ({ weekday, fromMinute: 9 * 60, toMinute: 17 * 60 + 30 }));
