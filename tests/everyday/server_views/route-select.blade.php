@props(['name' => 'route', 'routes' => [], 'selected' => '', 'placeholder' => 'Choose a route'])

<select name="{{ $name }}" {{ $attributes->class('select') }}>
    <option value="">{{ $placeholder }}</option>
    @foreach ($routes as $code => $label)
        <option value="{{ $code }}" @if ($code === $selected) selected @endif>{{ $label }}</option>
    @endforeach
</select>
