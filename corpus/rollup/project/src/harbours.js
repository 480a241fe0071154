export const harbours = ['Holm', 'Sandvar']
