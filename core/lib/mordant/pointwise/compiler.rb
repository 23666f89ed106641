# frozen_string_literal: true

require "fiddle"

module Mordant
  module Pointwise
    # Listings made into machine code, by LLVM's library through its C interface. What is compiled is
    # kept by what it does, as recipes of the same steps differ in constants and tables only. A program has
    # form, which equal ones have alike, and listing(attributes), a function with the arguments of Listing#to_s.
    #
    # Source: llvm-c/{Core,IRReader,ExecutionEngine,TargetMachine}.h of LLVM 15.
    module Compiler
      LIBRARY = "libLLVM-15.so.1"
      KEPT = 96 # of half a megabyte each
      OPTIMISING = 2
      TARGETS = {"x86_64" => "X86", "aarch64" => "AArch64"}.freeze # LLVM's names of processors
      POINTER, WHOLE, LONG, NONE = Fiddle::TYPE_VOIDP, Fiddle::TYPE_INT, Fiddle::TYPE_LONG_LONG, Fiddle::TYPE_VOID
      FUNCTIONS = {
        "LLVMLinkInMCJIT" => [NONE], "LLVMGetHostCPUName" => [POINTER], "LLVMGetHostCPUFeatures" => [POINTER], "LLVMContextCreate" => [POINTER],
        "LLVMContextDispose" => [NONE, POINTER], "LLVMDisposeMessage" => [NONE, POINTER],
        "LLVMCreateMemoryBufferWithMemoryRangeCopy" => [POINTER, POINTER, LONG, POINTER], "LLVMParseIRInContext" => [WHOLE, POINTER, POINTER, POINTER, POINTER],
        "LLVMInitializeMCJITCompilerOptions" => [NONE, POINTER, LONG], "LLVMCreateMCJITCompilerForModule" => [WHOLE, POINTER, POINTER, POINTER, LONG, POINTER],
        "LLVMGetFunctionAddress" => [LONG, POINTER, POINTER], "LLVMDisposeExecutionEngine" => [NONE, POINTER]
      }.freeze
      V3 = %w[+avx2 +bmi +bmi2 +f16c +fma +lzcnt +movbe].freeze # x86-64-v3 of the System V ABI
      OPTIONS = 24 # bytes of LLVMMCJITCompilerOptions, whose first four are the level of optimising

      @kept = {}
      @lock = Mutex.new

      class << self
        # @return [Boolean] the library is here; without it Numo does all of the work
        def here? = !library.nil?

        # @return [Boolean] the processor itself makes half floats of floats
        def halves? = here? && (machine == "aarch64" || processor.fetch("target-features").split(",").include?("+f16c"))

        # @param program [#form]
        # @return [Boolean] it costs nothing to have it
        def kept?(program) = @kept.key?(program.form)

        # @param program [#form, #listing] a Recording or a program of its own
        # @return [Fiddle::Function, nil] see Listing#to_s for what it is given; nil without the library
        # @raise [Error] of a listing LLVM does not take
        def function(program)
          return unless here?

          @lock.synchronize do
            function = @kept.delete(program.form) || made(program.listing(processor))
            @kept.shift while @kept.size >= KEPT # what was asked for longest ago
            @kept[program.form] = function
          end
        end

        private

        def library
          return @library if defined?(@library)

          @library = TARGETS.key?(machine) ? open : nil
        rescue Fiddle::DLError # it is not installed
          @library = nil
        end

        def machine = RbConfig::CONFIG["host_cpu"]

        def open
          handle = Fiddle.dlopen(LIBRARY)
          @functions = FUNCTIONS.to_h { |name, (result, *takes)| [name, Fiddle::Function.new(handle[name], takes, result)] }
          %w[TargetInfo Target TargetMC AsmPrinter].each { |part| Fiddle::Function.new(handle["LLVMInitialize#{TARGETS.fetch(machine)}#{part}"], [], NONE).call }
          call("LinkInMCJIT")
          handle
        end

        def call(name, *arguments) = @functions.fetch("LLVM#{name}").call(*arguments)

        # What is written for x86 with AVX-512 looks into tables half as fast as what is written for AVX2, where this was measured.
        def processor
          @processor ||= begin
            name, features = text(call("GetHostCPUName")), text(call("GetHostCPUFeatures")).split(",")
            (V3.all? { |feature| features.include?(feature) }) ? {"target-cpu" => "x86-64-v3", "target-features" => V3.join(",")} : {"target-cpu" => name, "target-features" => features.join(",")}
          end
        end

        def text(pointer) = pointer.to_s.tap { call("DisposeMessage", pointer) }

        def made(listing)
          context = call("ContextCreate")
          engine = engine_of(module_of(listing, context))
          function = Fiddle::Function.new(call("GetFunctionAddress", engine, Listing::NAME), [LONG, *[POINTER] * 4], WHOLE)
          ObjectSpace.define_finalizer(function, ending(engine, context))
          function
        end

        # Memory of the machine code goes with the last that could run it.
        def ending(engine, context)
          disposers = @functions.values_at("LLVMDisposeExecutionEngine", "LLVMContextDispose")
          proc { disposers.zip([engine, context]) { |function, what| function.call(what) } }
        end

        def module_of(listing, context)
          buffer = call("CreateMemoryBufferWithMemoryRangeCopy", listing, listing.bytesize, Listing::NAME)
          told { |found, message| call("ParseIRInContext", context, buffer, found, message) }
        end

        def engine_of(made)
          options = "\0".b * OPTIONS
          call("InitializeMCJITCompilerOptions", options, OPTIONS)
          options[0, 4] = [OPTIMISING].pack("L")
          told { |engine, message| call("CreateMCJITCompilerForModule", engine, made, options, OPTIONS, message) }
        end

        # What a function puts at the first of two addresses, or its message at the second.
        def told
          found, message = Array.new(2) { Fiddle::Pointer.malloc(Fiddle::SIZEOF_VOIDP, Fiddle::RUBY_FREE) }
          yield(found, message).zero? ? found.ptr : raise(Error, "LLVM: #{text(message.ptr)}")
        end
      end
    end
  end
end
