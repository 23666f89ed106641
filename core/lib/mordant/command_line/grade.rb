# frozen_string_literal: true

require "optparse"

module Mordant
  module CommandLine
    # Grades a still, or every frame of a sequence or a video, into stills.
    module Grade
      USAGE = "grade --recipe FILE --from ID --to ID [--rendering ID] IN OUT\n" \
              "    IN, OUT: a still (png, tif, exr; in also jpg, dpx), or a video or a sequence (in.%04d.png)\n" \
              "    in and a pattern such as out.%04d.png out"

      SINGLE = %w[.exr .dpx].freeze # stills that go the way of sequences

      module_function

      def call(arguments, **)
        options = {}
        rest = OptionParser.new do |parser|
          %w[recipe from to rendering].each { |name| parser.on("--#{name} VALUE") { |value| options[name.to_sym] = value } }
        end.parse(arguments)
        missing = %i[recipe from to].reject { |name| options[name] }
        raise Usage, "grade needs #{missing.map { |m| "--#{m}" }.join(", ")}" unless missing.empty?
        raise Usage, "grade needs IN and OUT" unless rest.size == 2

        run(*rest, **options)
      end

      def run(source, target, recipe:, from:, to:, rendering: nil)
        document, id = read_recipe(recipe), Colour.encoding(from).id
        floats, pictures = opened(source, target)
        plan = Mordant::Grade::Plan.new(recipe: document, source: floats ? "#{Colour::Encoding::FLOATS}#{id}" : id)
        output = Mordant::Grade::Output.new(view: Mordant::Grade::View.new(encoding: to, rendering:))
        pictures.each do |codes, path|
          raise MediaError.new(path, "it exists; nothing is overwritten") if File.exist?(path)

          write(output.run(plan.run(codes)), path)
        end
      end

      def read_recipe(path)
        Mordant::Grade::Recipe.from_json(File.read(path))
      rescue ParameterError => e
        raise ParameterError.new(path: "#{path}: #{e.path}", expected: e.expected, found: e.found)
      end

      # @return [Array(Boolean, Enumerable)] whether it holds floats, and codes and path of each picture
      def opened(source, target)
        still = !source.match?(/[\[%]/)
        return [false, [[Media::Stills.read(source), target]]] if still && Media::Stills::READABLE.include?(File.extname(source).downcase)
        single = still && SINGLE.include?(File.extname(source).downcase)
        raise Usage, "a sequence needs a numbered OUT, such as out.%04d.png" if !single && !target.match?(/%0?\d*d/)

        if source.include?("%")
          found = Media::Sequence.find(source) or raise MediaError.new(source, "there are no such numbered frames")
          source = found.path
        end
        probe = Media::Probe.new(source)
        reader = Media::Reader.new(source, rate: probe.facts.rate, facts: probe.facts, index: -> { probe.index })
        [reader.coding.float?, frames(reader, probe.facts, Media::Sequence.parse(source)&.first || 0, target)]
      end

      def frames(reader, facts, number, target)
        Enumerator.new do |out|
          reader.each(first: 0, count: facts.frames, width: facts.width, height: facts.height) do |codes|
            out << [codes, target.match?(/%0?\d*d/) ? format(target, number) : target]
            number += 1
          end
        end
      end

      def write(frame, path)
        return Media::Stills.write(frame, path) unless File.extname(path).downcase == ".exr"

        primaries = Colour.encoding(frame.encoding).primaries || Colour::Primaries::AP0
        File.binwrite(path, Media::EXR.new(primaries:, rate: Media::Probe::SEQUENCE_RATE).encode(frame))
      end
    end
  end
end
