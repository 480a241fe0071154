export default () => <p>Holm, Sandvar</p>
