<p class="clock">Gullmoor time {{ date('H:i') }} <a href="{{ route('weather', $island) }}">weather</a></p>
