export const environment = { production: false, sailingsApi: 'https://api.skerryline.test' }
