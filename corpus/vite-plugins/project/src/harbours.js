export const harbours = ['Holm', 'Outer Light', 'Sandvar', 'Kelp Bay']
