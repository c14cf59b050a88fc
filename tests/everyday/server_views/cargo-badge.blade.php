@props(['cargo' => 'parcels', 'tonnes' => 0, 'limit' => 10])
@php
    $full = $tonnes >= $limit;
    $label = $full ? 'full' : $limit - $tonnes . ' t free';
@endphp

<span {{ $attributes->merge(['class' => 'badge']) }} title="{{ $cargo }}: {{ $tonnes }} of {{ $limit }} t">
    {{ ucfirst($cargo) }}
    <small @class(['warn' => $full])>{{ $label }}</small>
</span>
