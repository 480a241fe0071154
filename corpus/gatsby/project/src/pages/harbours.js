import React from 'react'

export default () => <p>Holm, Sandvar</p>
