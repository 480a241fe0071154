<template><p>Holm, Sandvar</p></template>
