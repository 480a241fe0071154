export const environment = { production: true, sailingsApi: 'https://api.skerryline.example' }
