<p>Holm, Sandvar</p>
