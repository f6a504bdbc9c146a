/** The time zone that tests run in: days are the workshop's own, and in a zone that is not UTC a test sees where they are not. */
export const TEST_ZONE = 'Asia/Kathmandu';
