const harbours = ['Holm', 'Sandvar']
export default harbours
