fetch('https://api.skerryline.example/v1/sailings').then((answer) => answer.json())
