fetch('https://api.skerryline.example/v1/sailings')
