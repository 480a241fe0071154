export const notices = [
  'The evening boat to Holm sails from pier two.',
  'Dogs travel free until the end of the season.',
]
