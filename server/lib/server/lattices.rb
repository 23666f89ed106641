# frozen_string_literal: true

module Server
  # Has frames of an output drawn by ffmpeg alone where a lattice would not show. Whether it
  # would is looked for once for each shot and its grade, and kept with the output. Where it would, a fine lattice draws most of
  # them, and the rest is made exactly.
  class Lattices
    MOST_BITS = 10
    TOO_COARSE = 0 # nodes that are kept where none are enough

    # A shot's fine lattice costs seconds, and its parts come one after the other.
    #
    # @param key [Object] all that it depends on
    # @return [Mordant::Grade::FineBake] what the block makes, kept
    def self.fine(key)
      @fine ||= {}
      @fine[key] = @fine.delete(key) || yield
      @fine.shift while @fine.size > KEPT
      @fine[key]
    end
    KEPT = 2
    private_constant :KEPT

    # @param output [Output]
    # @param stretch [Stretch]
    def initialize(output, stretch)
      @output, @stretch, @sheet = output, stretch, output.made_as
    end

    # Nothing is drawn over it, its raster is the project's, no light is measured, and its
    # codes are few enough that a lattice could do.
    #
    # @return [Boolean]
    def possible?
      project = @output.order.cut.project
      !@sheet.format.sequence? && @sheet.format.bits <= MOST_BITS && @sheet.burns.empty? && @sheet.mask.nil? && @sheet.safe.empty? &&
        [@sheet.width, @sheet.height] == [project.width, project.height] && !Mordant::Colour.encoding(@sheet.view.encoding).absolute?
    end

    # @param writer [Mordant::Deliver::VideoWriter]
    # @param records [Range<Integer>] of which frames are drawn, where they can be
    # @param findings [Mordant::Deliver::Findings] nothing is left to measure of what is drawn
    # @yieldparam done [Integer] frames of the range that there are now
    # @raise [Mordant::MediaError]
    def draw(writer, records, findings)
      return unless possible?

      @stretch.timeline.segments(records.begin, records.size).select { |segment| alone?(segment) }.each do |segment|
        next if @sheet.view.aim && !@output.order.cut.renditions.still?(@output.order.cut.shot(segment.incoming.key))

        standing(segment.incoming).each do |whole|
          range = [whole.begin, segment.first].max...[whole.end, segment.first + segment.length].min
          next unless range.any?

          told = ->(done) { yield range.begin - records.begin + done }
          if (bulk = bulk(segment.incoming, whole))
            writer.draw(bulk, range, frame: segment.incoming.source_at(range.begin), &told)
            range.each { |record| findings.measure(@output.id, record) if writer.has?(record) }
          elsif (mended = mended(segment.incoming, whole))
            mend(mended, writer, range, segment.incoming, findings, &told)
          end
        end
      end
    end

    private

    # One file's frames in order.
    def alone?(segment)
      clip = @output.order.cut.shot(segment.incoming.key).clip
      !segment.outgoing && segment.incoming.plain? && !clip.placeholder? && !clip.paced?
    end

    # Stretches of a shot in which its grade stands still, however it moves in others.
    #
    # @param member [Mordant::Cut::Timeline::Shot]
    # @return [Array<Range<Integer>>] record frames
    def standing(member)
      source = graded(member)
      by = member.record_in - source.start
      source.plan.recipe.stretches(source.start...(source.start + member.length)).filter_map { |frames, moves| (frames.begin + by)...(frames.end + by) unless moves }
    end

    # @return [Mordant::Deliver::Programme::Source]
    def graded(member) = (@graded ||= {})[member.key] ||= @stretch.source(@output.order.cut.shot(member.key), [@sheet.variant]).others.fetch(@sheet.variant)

    # @param member [Mordant::Cut::Timeline::Shot]
    # @param whole [Range<Integer>] record frames of a stretch that stands still
    # @return [Mordant::Deliver::Bulk, nil]
    def bulk(member, whole)
      return unless output_of(whole).pointwise?

      grade = grade_of(member, whole)
      key = (whole.size == member.length) ? member.key.to_s : "#{member.key}:#{whole.begin - member.record_in}"
      kept = @output.lattices[key]
      nodes = kept["nodes"] if kept && kept["grade"] == grade
      return if nodes == TOO_COARSE
      return made(member, whole, size: nodes) if nodes

      found = made(member, whole)
      keep(key, {"grade" => grade, "nodes" => found.fits? ? found.size : TOO_COARSE})
      found if found.fits?
    rescue Mordant::MediaError
      nil # the exact way tells what is wrong with it, or leaves frames out as the order says
    end

    # What no coarse lattice is near enough of, where a fine one does most of it.
    #
    # @return [Mordant::Deliver::Mended, nil]
    def mended(member, whole)
      source = still(member, whole)
      raster = {width: @sheet.width, height: @sheet.height}
      return unless output_of(whole).pointwise? && Mordant::Deliver::Mended.can?(source, count: whole.size, **raster)

      bake = Lattices.fine([grade_of(member, whole), member.key, @sheet.format.bits, raster]) do
        Mordant::Deliver::Mended.bake(source:, output: output_of(whole), bits: @sheet.format.bits, first: member.source_at(whole.begin), count: whole.size, **raster)
      end
      Mordant::Deliver::Mended.new(reader: source.reader, bake:, **raster).then { |made| made if made.fits? }
    rescue Mordant::MediaError
      nil # the exact way tells what is wrong with it
    end

    # Frames that are missing from the first one on; one that cannot be decoded is left to the exact way.
    def mend(mended, writer, range, member, findings)
      at = range.find { |record| !writer.has?(record) } or return
      writer.open
      mended.each(first: member.source_at(at), count: range.end - at) do |frame, note, number|
        record = at + number
        writer.write(record, frame, nil) unless writer.has?(record)
        findings.measure(@output.id, record, beyond: note.beyond, drawn: note)
        yield record + 1 - range.begin
      end
    rescue Mordant::MediaError
      raise if writer.has?(range.end - 1) # all are there, and yet something is wrong
    end

    # @return [String] another one when anything changes that its pictures depend on
    def grade_of(member, whole)
      shot, project = @output.order.cut.shot(member.key), @output.order.cut.project
      Pictures::Depends.digest(Pictures::Depends.grade(project, shot.delivered(*@sheet.variant), shot.clip.source_encoding), Pictures::Depends.view(view(whole)), member.source_at(whole.begin), whole.size)[0, 12]
    end

    # @return [Mordant::Grade::View] of the sheet, as it is there
    def view(whole) = @stretch.bound(@sheet.view, whole.begin)

    # @return [Mordant::Deliver::Programme::Source] with the grade that stands through the stretch
    def still(member, whole)
      source = graded(member)
      Mordant::Deliver::Programme::Source.new(reader: source.reader, plan: source.plan_at(whole.begin - member.record_in))
    end

    # @return [Mordant::Grade::Output]
    def output_of(whole) = @output.order.cut.project.output(view(whole))

    def made(member, whole, size: nil)
      Mordant::Deliver::Bulk.new(source: still(member, whole), output: output_of(whole), bits: @sheet.format.bits, first: member.source_at(whole.begin), count: whole.size, size:)
    end

    # Another worker may have found out of other shots meanwhile.
    def keep(key, found)
      Output.where(id: @output.id).update_all(["lattices = lattices || ?::jsonb", {key => found}.to_json])
      @output.lattices[key] = found
    end
  end
end
