<?php

// Renders view components with the engine. One JSON object a line in, one a line out.
// {"op":"load","classes":[text…],"views":{name: text}}, then {"op":"render","tag","inputs","slots"} → {"html"} or {"error"}.
// Everything stays in memory: this process opens no file but the engine's, and each rendering has a process of its own.

use Illuminate\Container\Container;
use Illuminate\Events\Dispatcher;
use Illuminate\Filesystem\Filesystem;
use Illuminate\Support\Facades\Facade;
use Illuminate\View\Compilers\BladeCompiler;
use Illuminate\View\Engines\CompilerEngine;
use Illuminate\View\Engines\EngineResolver;
use Illuminate\View\Factory;
use Illuminate\View\ViewFinderInterface;

error_reporting(E_ALL);
require $argv[1];

set_error_handler(function (int $level, string $words) {
    if (!(error_reporting() & $level) || $level & (E_DEPRECATED | E_USER_DEPRECATED)) {
        return false;
    }
    throw new ErrorException($words, 0, $level);
});

/** What the compiler of tags asks of the application. */
final class Application extends Container
{
    public function getNamespace()
    {
        return 'App\\';
    }
}

/** Finds views among texts. */
final class TextFinder implements ViewFinderInterface
{
    public array $texts = [];

    public function find($view)
    {
        $name = str_replace('/', '.', $view);
        if (!isset($this->texts[$name])) {
            throw new InvalidArgumentException("View [$view] not found.");
        }
        return "$name.blade.php";
    }

    public function addLocation($location) {}
    public function addNamespace($namespace, $hints) {}
    public function prependNamespace($namespace, $hints) {}
    public function replaceNamespace($namespace, $hints) {}
    public function addExtension($extension) {}
    public function flush() {}
}

/** Compiles and evaluates texts. */
final class TextEngine extends CompilerEngine
{
    public ?TextFinder $finder = null;
    public ?object $component = null;

    public function get($path, array $data = [])
    {
        $this->lastCompiled[] = $path;
        $text = $this->finder->texts[substr($path, 0, -strlen('.blade.php'))];
        $compiled = $this->compiler->compileString($text);
        $level = ob_get_level();
        ob_start();
        try {
            $show = function (string $__code, array $__data) {
                extract($__data, EXTR_SKIP);
                eval("?>$__code");
            };
            $show->bindTo($this->component ?? new stdClass())($compiled, $data);
        } catch (Throwable $error) {
            while (ob_get_level() > $level) {
                ob_end_clean();
            }
            throw $error;
        }
        array_pop($this->lastCompiled);
        return ltrim(ob_get_clean());
    }
}

$app = new Application();
Container::setInstance($app);
$files = new Filesystem();
$compiler = new BladeCompiler($files, '/nowhere');
$finder = new TextFinder();
$engine = new TextEngine($compiler, $files);
$engine->finder = $finder;
$engines = new EngineResolver();
$engines->register('blade', fn () => $engine);
$factory = new Factory($engines, $finder, new Dispatcher($app));
$factory->setContainer($app);
$factory->share('app', $app);
foreach ([Factory::class, Illuminate\Contracts\View\Factory::class, 'view'] as $name) {
    $app->instance($name, $factory);
}
foreach ([Container::class, 'app', Illuminate\Contracts\Foundation\Application::class] as $name) {
    $app->instance($name, $app);
}
$app->instance('blade.compiler', $compiler);
$app->instance('files', $files);
$texts = new Texts();
$app->instance('translator', $texts);
Facade::setFacadeApplication($app);

/** A value of the page that is an object: what its methods return are its fields. */
final class Given
{
    public function __construct(private array $fields) {}

    public function __get(string $name): mixed
    {
        if (!array_key_exists($name, $this->fields)) {
            throw new ErrorException("Undefined property: $name");
        }
        return $this->fields[$name];
    }

    public function __isset(string $name): bool
    {
        return isset($this->fields[$name]);
    }

    public function __call(string $name, array $given): mixed
    {
        return $this->__get($name);
    }
}

/** A value with objects at a path in place of arrays; `[]` stands for each item. */
function withObjects(mixed $value, array $path): mixed
{
    if (!is_array($value)) {
        return $value;
    }
    if ($path === []) {
        return new Given($value);
    }
    $first = array_shift($path);
    foreach ($first === '[]' ? array_keys($value) : [$first] as $key) {
        if (array_key_exists($key, $value)) {
            $value[$key] = withObjects($value[$key], $path);
        }
    }
    return $value;
}

/** Texts of the page's language; a key stands for a text that is missing. */
final class Texts
{
    public array $texts = [];

    public function get(string $key, array $values = [], ?string $locale = null): string
    {
        $text = $this->texts[$key] ?? $key;
        foreach ($values as $name => $value) {
            $text = str_replace(":$name", (string) $value, $text);
        }
        return $text;
    }
}

/** What compiled templates ask the application for: the texts of the page's language. */
function app(string $name = 'app'): mixed
{
    return Container::getInstance()->make($name);
}

function __(string $key, array $values = []): string
{
    return Container::getInstance()->make('translator')->get($key, $values);
}

function trans(string $key, array $values = []): string
{
    return __($key, $values);
}

/** Messages about fields, as the application shares them with every view. */
function shared(array $messages): void
{
    $told = array_map(fn ($one) => [$one], array_filter($messages, fn ($one) => is_string($one) && $one !== ''));
    $bag = new Illuminate\Support\ViewErrorBag();
    $bag->put('default', new Illuminate\Support\MessageBag($told));
    Container::getInstance()->make('view')->share('errors', $bag);
}

/** The view of a name, as components ask for it. */
function view(string $name, array $data = [])
{
    return Container::getInstance()->make('view')->make($name, $data);
}

/** Neutral content (text, or {tag, attributes, content}) as HTML. */
function html(array $content): string
{
    $found = '';
    foreach ($content as $part) {
        if (is_string($part)) {
            $found .= e($part);
            continue;
        }
        $attributes = '';
        foreach ($part['attributes'] ?? [] as $name => $value) {
            $attributes .= " $name=\"" . e($value) . '"';
        }
        $found .= "<{$part['tag']}$attributes>" . html($part['content'] ?? []) . "</{$part['tag']}>";
    }
    return $found;
}

/** The use of a component that gives it inputs and content. */
function used(string $tag, array $inputs, array $slots): string
{
    $given = '';
    foreach (array_keys($inputs) as $at => $name) {
        $dashed = strtolower(preg_replace('/(?<=[a-z0-9])(?=[A-Z])/', '-', $name));
        $given .= " :$dashed=\"\$given[$at]\"";
    }
    $content = $named = '';
    foreach ($slots as $name => $part) {
        if ($name === '' || $name === 'default' || $name === 'children') {
            $content .= html($part);
        } else {
            $named .= "\n<x-slot name=\"$name\">" . html($part) . "</x-slot>\n";
        }
    }
    $content .= $named;
    return "<x-$tag$given>$content</x-$tag>";
}

function rendered(array $asked, TextFinder $finder): array
{
    try {
        $inputs = $asked['inputs'];
        shared(is_array($inputs['errors'] ?? null) ? $inputs['errors'] : []);
        $view = implode('', $finder->texts);
        if (preg_match('/@lang\b|\b(?:__|trans)\(/', $view)) {
            Container::getInstance()->make('translator')->texts = is_array($inputs['texts'] ?? null) ? $inputs['texts'] : [];
            unset($inputs['texts']);
        }
        if (str_contains($view, '@error') || str_contains($view, '$errors->')) {
            unset($inputs['errors']);
        }
        // The inner ones first: an object is looked into no more.
        $paths = $asked['objects'] ?? [];
        usort($paths, fn ($one, $other) => count($other) <=> count($one));
        foreach ($paths as $path) {
            $inputs = withObjects($inputs, $path);
        }
        $finder->texts['use'] = used($asked['tag'], $inputs, $asked['slots']);
        return ['html' => view('use', ['given' => array_values($inputs)])->render()];
    } catch (Throwable $error) {
        return failed($error);
    }
}

function failed(Throwable $error): array
{
    while ($error->getPrevious()) {
        $error = $error->getPrevious();
    }
    return ['error' => get_class($error) . ': ' . $error->getMessage()];
}

// The classes of the engine are there before the first rendering starts.
$finder->texts['warm'] = '<p @class(["a" => true])>{{ 1 }}@foreach ([1] as $one){{ $loop->index }}@endforeach</p>';
view('warm')->render();
class_exists(Illuminate\View\Component::class);
class_exists(Illuminate\View\ComponentSlot::class);
class_exists(Illuminate\View\AnonymousComponent::class);
class_exists(Illuminate\Support\ViewErrorBag::class);
class_exists(Illuminate\Support\MessageBag::class);
class_exists(Illuminate\View\Compilers\ComponentTagCompiler::class);
collect([1])->map(fn ($one) => $one);

$classes = [];
while (($line = fgets(STDIN)) !== false) {
    $asked = json_decode($line, true);
    if ($asked['op'] === 'load') {
        $classes = $asked['classes'];
        $finder->texts = $asked['views'];
        echo json_encode(['loaded' => true]), "\n";
        continue;
    }
    [$own, $its] = stream_socket_pair(STREAM_PF_UNIX, STREAM_SOCK_STREAM, 0);
    $process = pcntl_fork();
    if ($process === 0) {
        fclose($own);
        // The component can write to nobody.
        fclose(STDIN);
        fclose(STDOUT);
        fclose(STDERR);
        ob_start();
        try {
            foreach ($classes as $text) {
                eval("?>$text");
            }
            $answer = $asked['op'] === 'request' ? requested($asked, $engine) : rendered($asked, $finder);
        } catch (Throwable $error) {
            $answer = failed($error);
        }
        ob_end_clean();
        $flags = JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_INVALID_UTF8_SUBSTITUTE;
        stream_socket_sendto($its, json_encode($answer, $flags) . "\n");
        exit(0);
    }
    fclose($its);
    stream_set_timeout($own, 10);
    $answer = stream_get_contents($own);
    fclose($own);
    pcntl_waitpid($process, $status, WNOHANG);
    if ($answer === '' || $answer === false) {
        $answer = json_encode(['error' => 'the rendering ended without an answer or took too long']) . "\n";
    }
    echo $answer;
}
