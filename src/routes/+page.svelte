<p>hi</p>
