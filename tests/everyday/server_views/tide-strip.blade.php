@props(['state' => 'slack', 'height' => 0.0, 'stars' => 3])

<p class="tide" style="width: {{ $height * 20 }}px">
    @switch($state)
        @case('rising')
            <b>Rising</b>
            @break
        @case('falling')
            <b>Falling</b>
            @break
        @default
            <b>Slack water</b>
    @endswitch
    <span class="stars">@for ($i = 0; $i < $stars; $i++)<i>*</i>@endfor</span>
    <span>{{ round($height, 1) }} m</span>
</p>
