module.exports = { browsers: ['last 1 Chrome versions'] }
