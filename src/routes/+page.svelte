<h1>Tin Shed</h1>
